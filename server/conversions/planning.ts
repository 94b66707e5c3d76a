/** The job that works a conversion out: what becomes of each source, how far it will be off, and why one cannot be made. */
import { v7 } from 'uuid';
import { object, type InferType } from 'yup';
import type { Outcome } from '@/core/conversion/outcome';
import type { Look } from '@/core/look/look';
import { inParallel } from '@/core/parallel';
import type { Settings } from '@/core/preset/kinds';
import { Problem, type ToldProblem } from '@/core/problem';
import { same } from '@/core/same';
import { uuid } from '@/core/uuid';
import { record } from '../activity/queries';
import { pool, transaction } from '../db/pool';
import { checked } from '../input';
import { Cancelled, concernsJob, toldBug, type JobContext } from '../jobs/service';
import { must } from '@/core/must';
import * as items from '../items/queries';
import { lookOf } from '../items/service';
import { actorOf, type Person } from '../people/roles';
import { personById } from '../people/queries';
import { compute, threadsInUse } from '../threads/computing';
import { make, type Made, type Source } from './makers';
import { namesOf, recipeOfRow } from './names';
import { allowMaking, sourceFor, sourcesFor } from './one';
import * as q from './queries';

export const jobPayload = object({ conversion: uuid().required() });
export type JobPayload = InferType<typeof jobPayload>;

/** Whoever a job works for. */
export async function personOfJob(id: string | null): Promise<Person> {
  const person = id ? await personById(pool(), id) : undefined;
  if (person) return person;
  throw new Problem('not-found', 'Whoever began this is not there any more.', id ?? '', 'Begin it again.');
}

/** What a fault says on its row, so that one leaves the rest; faults that concern the whole job are thrown on. */
export function toldOf(error: unknown): ToldProblem {
  if (error instanceof Problem) return error.toJSON();
  if (concernsJob(error)) throw error as Error;
  return toldBug(error, v7(), 'a row of a conversion failed');
}

/** How a preset's settings differ between the version that was used and the one that is used now. */
async function settingsChanged(source: Source, before: string): Promise<q.Changes['settings']> {
  const old = (await items.sourcesOf(pool(), before)).find((line) => line.item_id === source.item.id);
  const version = old && (await items.versionById(pool(), old.version_id));
  const was = (version?.facts.settings ?? {}) as Settings;
  const is = (source.version.facts.settings ?? {}) as Settings;
  return [...new Set([...Object.keys(was), ...Object.keys(is)])]
    .filter((setting) => !same(was[setting], is[setting]))
    .map((setting) => ({ setting, before: was[setting] ?? null, after: is[setting] ?? null }));
}

/** The same for all that something was made of. */
async function settingsOfAll({ layers, ...source }: Source, before: string): Promise<q.Changes['settings']> {
  const all = layers?.map((layer) => layer.source) ?? [source];
  const changed = await Promise.all(all.map((own) => settingsChanged(own, before)));
  return changed.flat();
}

async function colorChanged(made: Made, before: string): Promise<q.Changes['color']> {
  const version = await items.versionById(pool(), before);
  if (made.kind !== 'look' || version?.kind !== 'look') return null;
  const encoding = made.encoding ?? version.encoding;
  const [was, is]: Look[] = await Promise.all([
    lookOf(version),
    compute('look', { source: { kind: 'look', bytes: made.bytes, encoding }, points: 0 }),
  ]);
  const { color } = await compute('apart', { before: must(was), after: must(is), pictures: [] });
  return { mean: color.mean, max: color.max };
}

type Planned = Outcome & { changes?: q.Changes };

async function planned(person: Person, conversion: q.ConversionRow, row: q.SourceRow, title: string): Promise<Planned> {
  const recipe = recipeOfRow(conversion, row);
  const source = await sourcesFor(person, recipe, await sourceFor(person, row.source_version_id));
  await allowMaking(person, source);
  const made = await make(recipe, source, title);
  if (!row.again_version_id) return made.outcome;
  const [color, settings] = await Promise.all([
    colorChanged(made, row.again_version_id),
    settingsOfAll(source, row.again_version_id),
  ]);
  return { ...made.outcome, changes: { color, settings } };
}

/** Run again after a kill, it goes on with the rows that are not worked out. */
export async function planConversion({ id, payload, personId, progress }: JobContext): Promise<{ refused: number }> {
  const { conversion: conversionId } = checked(jobPayload, payload);
  const person = await personOfJob(personId);
  const conversion = await q.conversionById(pool(), conversionId);
  if (conversion?.job_id !== id || conversion.status !== 'planning') throw new Cancelled();
  const rows = await q.rowsOf(pool(), conversionId);
  const names = await namesOf(pool(), conversion, rows);
  const waiting = rows.filter((row) => row.status === 'unplanned');
  let done = 0;
  await inParallel(waiting, threadsInUse(), async (row) => {
    const title = names.get(row.place)?.title ?? row.source.title;
    const at = { conversionId, jobId: id, place: row.place };
    const settled = await planned(person, conversion, row, title).then(
      (outcome) => q.settleRow(pool(), at, { status: 'planned', outcome }),
      (error: unknown) => q.settleRow(pool(), at, { status: 'refused', problem: toldOf(error) }),
    );
    if (!settled) throw new Cancelled();
    await progress(++done / waiting.length, `${done} of ${waiting.length}`);
  });
  return finishPlan(person, conversion, id);
}

const finishPlan = (person: Person, { id, again }: q.ConversionRow, jobId: string): Promise<{ refused: number }> =>
  transaction(async (sql) => {
    const now = await q.conversionById(sql, id, true);
    if (now?.job_id !== jobId || now.status !== 'planning') throw new Cancelled();
    const refused = (await q.rowsOf(sql, id)).filter((row) => row.status === 'refused').length;
    await q.setConversion(sql, id, { status: 'planned' });
    await record(sql, actorOf(person), 'conversion', id, 'planned', null, { refused, again });
    return { refused };
  });
