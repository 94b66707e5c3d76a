/** Arrivals: what is shown of them, corrections, and settling them. Uploads, reading and accepting have files of their own. */
import { array, number, object, string } from 'yup';
import { isTakeable } from '@/core/pack/recognise';
import { Problem } from '@/core/problem';
import { uuid } from '@/core/uuid';
import { pool, transaction } from '../db/pool';
import { record } from '../events';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../people/service';
import { compareRelease, type ReleaseView } from './releases';
import * as q from './queries';

export type { EntryRow, IntakeRow, Outcome, Source } from './queries';
export type { Change, ReleaseView } from './releases';
export { acceptIntake, undoIntake } from './accept';
export { readIntake } from './read-arrival';
export {
  beginArrival,
  beginUpload,
  dropArrival,
  finishUpload,
  MAX_PART,
  unfinishedUploads,
  uploadPart,
  uploadState,
} from './uploads';

export async function intakeFor(person: Person, id: string): Promise<{ intake: q.IntakeRow; entries: q.EntryRow[] }> {
  allow(person, 'intake.read');
  const intake = await q.intakeById(pool(), id);
  if (!intake) throw new Problem('not-found', 'There is no such arrival.', id, 'Go back to Intake.');
  return { intake, entries: await q.entriesOf(pool(), id) };
}

export const releaseFor = (person: Person, intake: q.IntakeRow): Promise<ReleaseView | null> =>
  compareRelease(person, intake);
export interface ArrivalView {
  intake: q.IntakeRow;
  groups: {
    group: q.Group;
    count: number;
    rows: (q.EntryRow & { needs: { kind: string; name: string; where: 'in this delivery' | 'held' | 'missing' }[] })[];
  }[];
  takeable: number;
  files: number;
}
const order: q.Group[] = [
  'refused',
  'unknown',
  'again',
  'version',
  'variant',
  'effect',
  'new',
  'frame',
  'descriptor',
  'held',
  'papers',
];
const TAKEN = ['new', 'version', 'variant', 'frame', 'descriptor'];

/** An arrival as it is decided: by group, exceptions first; of each group the first 200 rows, or all of one. */
export async function arrivalView(person: Person, id: string, only: string | null = null): Promise<ArrivalView> {
  allow(person, 'intake.read');
  const sql = pool();
  const intake = await q.intakeById(sql, id);
  if (!intake) throw new Problem('not-found', 'There is no such arrival.', id, 'Go back to Intake.');
  const group = order.includes(only as q.Group) ? only : null;
  const rows = await q.groupedEntries(sql, id, group ? 20000 : 200, group);
  const counts = await q.outcomeCounts(sql, id);
  const brought = new Set(await q.broughtTitles(sql, id));
  const held = new Set(await q.titlesHeld(sql, [...new Set(rows.flatMap((e) => e.needs.map((n) => n.name)))]));
  const told = rows.map((entry) => ({
    ...entry,
    needs: entry.needs.map((n) => ({
      ...n,
      where: brought.has(n.name)
        ? ('in this delivery' as const)
        : held.has(n.name)
          ? ('held' as const)
          : ('missing' as const),
    })),
  }));
  return {
    intake,
    takeable: TAKEN.reduce((n, o) => n + (counts[o] ?? 0), 0),
    files: Object.values(counts).reduce((a, b) => a + b, 0),
    groups: order.flatMap((group) => {
      const mine = told.filter((e) => e.grp === group);
      return mine.length ? [{ group, count: mine[0]!.in_group, rows: mine }] : [];
    }),
  };
}

export async function listIntakes(person: Person) {
  allow(person, 'intake.read');
  return q.intakes(pool(), 50);
}

const correction = object({
  entries: array().of(number().integer().required()).max(20000).default([]),
  group: string().oneOf(order),
  outcome: string()
    .oneOf(['new', 'version', 'variant', 'duplicate', 'frame', 'document'], 'That is nothing a file can become.')
    .required(),
  kind: string()
    .oneOf(['look', 'preset', 'camera-profile', 'icc-profile', 'lens-database', 'add-on', 'frame', 'document'])
    .nullable()
    .default(null),
  itemId: uuid().nullable().default(null),
  entryId: number().integer().nullable().default(null),
}).noUnknown();

/** A person says otherwise: what the entries become, of which kind they are, and of which item. In bulk. */
export async function correctEntries(
  person: Person,
  id: string,
  input: {
    entries?: number[];
    group?: string;
    outcome: string;
    kind?: string | null;
    itemId?: string | null;
    entryId?: number | null;
  },
): Promise<{ changed: number }> {
  allow(person, 'intake.accept');
  const c = checked(correction, input);
  return transaction(async (sql) => {
    const intake = await q.intakeById(sql, id, true);
    if (!intake || intake.status !== 'ready')
      throw new Problem(
        'intake-settled',
        'This arrival has been settled already, or is still being read.',
        id,
        'Reload the page.',
      );
    const ids = c.group ? await q.groupIds(sql, id, c.group) : c.entries;
    const rows = await q.entriesOf(sql, id, ids as number[]);
    const kind = c.kind;
    if (!rows.length) throw new Problem('intake-nothing', 'Nothing is chosen.', id, 'Choose at least one file.');
    for (const entry of rows) {
      if (!entry.sha256)
        throw new Problem(
          'intake-entry',
          'This file was not kept, since nothing could be made of it.',
          entry.path,
          'Drop it by itself, or ask the supplier for it again.',
        );
      const becomes = kind ?? entry.kind;
      if (['new', 'version', 'variant'].includes(c.outcome) && !isTakeable(becomes))
        throw new Problem(
          'intake-entry',
          `A ${becomes || 'file of no kind'} cannot stand on a shelf.`,
          entry.path,
          'Say first of which kind it is.',
        );
      if (['look', 'preset'].includes(becomes) && becomes !== entry.kind)
        throw new Problem(
          'intake-kind',
          `Nothing in this file can be read as a ${becomes}.`,
          entry.path,
          'Take it as another kind, or bring in a descriptor that tells its language.',
        );
    }
    if (
      ['version', 'variant'].includes(c.outcome) &&
      !c.itemId &&
      !c.entryId &&
      rows.some((e) => !e.target_item_id && !e.target_entry_id)
    )
      throw new Problem(
        'intake-target',
        'A new version or a variant needs the item that it belongs to.',
        'item',
        'Choose the item.',
      );
    let changed = 0;
    for (const entry of rows)
      changed += await q.correctEntries(sql, id, [entry.id], {
        outcome: c.outcome,
        kind,
        itemId: c.outcome === 'new' ? null : (c.itemId ?? (c.entryId ? null : entry.target_item_id)),
        entryId: c.outcome === 'new' || c.itemId ? null : (c.entryId ?? entry.target_entry_id),
      });
    await record(sql, actorOf(person), 'intake', id, 'corrected', null, { entries: changed, outcome: c.outcome });
    return { changed };
  });
}

export async function discardIntake(person: Person, id: string): Promise<void> {
  allow(person, 'intake.accept');
  await transaction(async (sql) => {
    const intake = await q.intakeById(sql, id, true);
    if (!intake || intake.status === 'accepted')
      throw new Problem('intake-settled', 'This arrival has been settled already.', id, 'Reload the page.');
    await q.intakeStatus(sql, id, 'discarded');
    await record(sql, actorOf(person), 'intake', id, 'discarded');
  });
}
