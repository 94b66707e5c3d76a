/**
 * Presets of a language, read anew by another mapping: what would change for the items that are held in it, and, once the
 * descriptor is taken, the change itself. Their files stay as they are.
 */
import { object, string, type InferType } from 'yup';
import { editorKey, parseDescriptor, type Descriptor } from '@/core/editor/descriptor';
import { bytesOfFingerprint } from '@/core/look/fingerprint';
import type { ClassOverrides } from '@/core/preset/bake';
import type { Settings } from '@/core/preset/kinds';
import { readPreset } from '@/core/recognise/presets';
import { Problem } from '@/core/problem';
import { same } from '@/core/same';
import { storable } from '@/core/text';
import { record } from '../activity/queries';
import { getBlob } from '../blobs/service';
import { effectOf } from '../copies/effect';
import { pool, transaction, type Sql } from '../db/pool';
import { checked } from '../input';
import { wordsOf } from '../items/create';
import { addJob, type JobContext } from '../jobs/service';
import { personById } from '../people/queries';
import { actorOf, allow, type Person } from '../people/roles';
import { referencesReadAnew } from '../references/bind';
import * as q from './queries';

export interface ReadAnew {
  itemId: string;
  versionId: string;
  title: string;
  /** ids of settings that were not read before, that are not any more, that read otherwise */
  gained: string[];
  lost: string[];
  changed: string[];
  /** how many properties nobody knows, before and after */
  unknown: [number, number];
  /** why its file could not be read any more; '' where it can */ fault: string;
}

/** As much of a preset's facts as a mapping reads. */
interface Facts {
  settings?: Settings;
  classes?: ClassOverrides;
  unknown?: Record<string, string>;
}

interface Anew {
  row: q.HeldPreset;
  /** null where it could not be read */ facts: Record<string, unknown> | null;
  fault: string;
}

async function readAgain(sql: Sql, row: q.HeldPreset, descriptor: Descriptor): Promise<Anew> {
  try {
    const { facts } = readPreset(row.file_name, await getBlob(row.sha256, sql), [descriptor], editorKey(descriptor));
    return { row, facts: { ...row.facts, ...facts }, fault: '' };
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return { row, facts: null, fault: error.message };
  }
}

const keysOf = (facts: Facts | null): string[] => Object.keys(facts?.settings ?? {});
const unknownIn = (facts: Facts | null): number => Object.keys(facts?.unknown ?? {}).length;

/** A setting with where it acts. */
const meantBy = (facts: Facts | null, id: string): unknown => [facts?.settings?.[id], facts?.classes?.[id]?.class];

function differenceOf({ row, facts, fault }: Anew): ReadAnew {
  const before: Facts = row.facts;
  const after: Facts | null = facts;
  const [old, now] = [keysOf(before), keysOf(after)];
  return {
    itemId: row.item_id,
    versionId: row.id,
    title: row.title,
    gained: now.filter((id) => !old.includes(id)),
    lost: fault ? [] : old.filter((id) => !now.includes(id)),
    changed: now.filter((id) => old.includes(id) && !same(meantBy(before, id), meantBy(after, id))),
    unknown: [unknownIn(before), unknownIn(after ?? before)],
    fault,
  };
}

const isChange = ({ gained, lost, changed, unknown, fault }: ReadAnew): boolean =>
  !!fault || gained.length + lost.length + changed.length > 0 || unknown[0] !== unknown[1];

/** The newest versions of items in the descriptor's language that would read otherwise by it, and how many there are in all. */
export async function effectOnItems(person: Person, text: string): Promise<{ held: number; items: ReadAnew[] }> {
  allow(person, 'editor.propose');
  const descriptor = parseDescriptor(descriptorIn(text));
  const rows = await q.presetsIn(pool(), editorKey(descriptor), true);
  const items: ReadAnew[] = [];
  for (const row of rows) {
    const difference = differenceOf(await readAgain(pool(), row, descriptor));
    if (isChange(difference)) items.push(difference);
  }
  return { held: rows.length, items };
}

/** So many presets of the library are offered as samples: the first by their titles. */
const MOST_SAMPLES = 20;

/** Presets of a language that are held, as samples of it. */
export const samplesHeld = (person: Person, language: string): Promise<q.HeldSample[]> => {
  allow(person, 'view');
  return q.samplesIn(pool(), language, MOST_SAMPLES);
};

/** Without what no database can hold; throws a Problem for what is no JSON. */
export function descriptorIn(text: string): unknown {
  try {
    return storable(JSON.parse(text) as unknown);
  } catch (error) {
    throw new Problem(
      'descriptor-json',
      `This is no JSON: ${(error as Error).message.slice(0, 120)}`,
      'descriptor',
      'Correct it and bring it in again.',
    );
  }
}

const jobPayload = object({ editor: string().required() });

/** Has every version in a language read anew, by its descriptor as it stands when the job comes to it. */
export const queueReadingAnew = (sql: Sql, descriptor: Descriptor, personId: string | null): Promise<string> =>
  addJob(
    sql,
    'read-anew',
    `Read the presets of ${descriptor.title} anew`,
    { editor: editorKey(descriptor) } satisfies InferType<typeof jobPayload>,
    personId,
  );

/** What a version says of colors and what it refers to follow from its facts. */
async function keepFacts(row: q.HeldPreset, facts: Record<string, unknown>): Promise<void> {
  const effect = await effectOf(pool(), 'preset', row.sha256, facts);
  await transaction(async (sql) => {
    await q.setFacts(sql, row.id, {
      facts,
      words: wordsOf(facts),
      content: effect.content,
      fingerprint: effect.fingerprint && Buffer.from(bytesOfFingerprint(effect.fingerprint)),
      selvedge: effect.selvedge,
    });
    await referencesReadAnew(sql, row.id, facts);
  });
}

/** A file that the descriptor cannot read keeps what was read of it before. Run again after a kill, it begins anew. */
export async function readPresetsAnew({ payload, personId, progress }: JobContext): Promise<{ changed: number }> {
  const { editor } = checked(jobPayload, payload);
  const descriptor = (await q.allDescriptors(pool())).find((one) => editorKey(one) === editor);
  if (!descriptor?.presets) return { changed: 0 };
  const rows = await q.presetsIn(pool(), editor, false);
  let changed = 0;
  for (const [index, row] of rows.entries()) {
    const { facts } = await readAgain(pool(), row, descriptor);
    if (facts && !same(facts, row.facts)) {
      await keepFacts(row, facts);
      changed++;
    }
    await progress((index + 1) / rows.length, `${index + 1} of ${rows.length}`);
  }
  const person = personId ? await personById(pool(), personId) : undefined;
  const actor = person ? actorOf(person) : { personId: null, name: 'Etagere' };
  if (changed) await record(pool(), actor, 'editor', editor, 'read anew', null, { presets: changed });
  return { changed };
}
