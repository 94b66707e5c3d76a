/** Arrivals: what is shown of them, corrections, and settling them. Uploads, reading and accepting have files of their own. */
import type { BodyOf } from '@/core/api';
import { arrivalEndpoints, AS_PROPOSED, entryGroups, type EntryGroup } from '@/core/api/arrivals';
import { isTakeable } from '@/core/recognise';
import { Problem } from '@/core/problem';
import { pool, transaction, type Sql } from '../db/pool';
import { addJob, jobLives } from '../jobs/service';
import { record } from '../activity/queries';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../input';
import { compareRelease, type ReleaseView } from './releases';
import * as q from './queries';

export type { EntryRow, ArrivalRow, Outcome, Source } from './queries';
export type { Change, ReleaseView } from './releases';
export { acceptArrival, undoArrival } from './accept';
export { giveUpReading, readArrival } from './read-arrival';
import { dropArrival } from './uploads';

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

export async function arrivalFor(
  person: Person,
  id: string,
): Promise<{ arrival: q.ArrivalRow; entries: q.EntryRow[] }> {
  allow(person, 'arrival.read');
  const arrival = await q.arrivalById(pool(), id);
  if (!arrival) throw new Problem('not-found', 'There is no such arrival.', id, 'Go back to Arrival.');
  return { arrival, entries: await q.entriesOf(pool(), id) };
}

export const releaseFor = (person: Person, arrival: q.ArrivalRow): Promise<ReleaseView | null> =>
  compareRelease(person, arrival);
export interface ArrivalView {
  arrival: q.ArrivalRow;
  /** it is said to be read, and nobody reads it */ stuck: boolean;
  groups: {
    group: q.Group;
    count: number;
    takeable: number;
    rows: (q.EntryRow & { needs: { kind: string; name: string; where: 'in this arrival' | 'held' | 'missing' }[] })[];
  }[];
  takeable: number;
  files: number;
  /** what can be read of it */ papers: { id: number; path: string; format: string }[];
}

/** An arrival as it is decided: by group, exceptions first; of each group the first 200 rows, or all of one; with words, only files that have them in path or title. */
export async function arrivalView(
  person: Person,
  id: string,
  only: string | null = null,
  words = '',
): Promise<ArrivalView> {
  allow(person, 'arrival.read');
  const sql = pool();
  const arrival = await q.arrivalById(sql, id);
  if (!arrival) throw new Problem('not-found', 'There is no such arrival.', id, 'Go back to Arrival.');
  const group = entryGroups.includes(only as EntryGroup) ? only : null;
  const rows = await q.groupedEntries(sql, id, group ? 20000 : 200, group, words);
  const counts = await q.outcomeCounts(sql, id);
  const brought = new Set(await q.broughtTitles(sql, id));
  const held = new Set(await q.titlesHeld(sql, [...new Set(rows.flatMap((e) => e.needs.map((n) => n.name)))]));
  const whereIs = (name: string): 'in this arrival' | 'held' | 'missing' => {
    if (brought.has(name)) return 'in this arrival';
    return held.has(name) ? 'held' : 'missing';
  };
  const told = rows.map((entry) => ({
    ...entry,
    needs: entry.needs.map((need) => ({
      ...need,
      where: whereIs(need.name),
    })),
  }));
  return {
    arrival,
    stuck: await isStuck(sql, arrival),
    takeable: q.outcomesTaken.reduce((n, o) => n + (counts[o] ?? 0), 0),
    files: Object.values(counts).reduce((a, b) => a + b, 0),
    papers: await q.papersOf(sql, id),
    groups: entryGroups.flatMap((group) => {
      const mine = told.filter((e) => e.grp === group);
      const [first] = mine;
      return first ? [{ group, count: first.in_group, takeable: first.takeable, rows: mine }] : [];
    }),
  };
}

export async function listArrivals(person: Person): Promise<q.ArrivalWithCounts[]> {
  allow(person, 'arrival.read');
  return q.arrivals(pool(), 50);
}

/** Those that were discarded not so long ago that they could not be brought back. */
export async function discardedArrivals(person: Person): Promise<q.ArrivalWithCounts[]> {
  allow(person, 'arrival.read');
  return q.arrivals(pool(), 50, true);
}

/** What no reader knows, and an editor needs: a person says that it is one. */
const SUPPORT_FILE = 'support-file';

/** A correction that the file itself cannot bear: nothing of it was kept, or it is of another kind. */
function refuseUntakeable(entry: q.EntryRow, outcome: string, becomes: string): void {
  if (!entry.sha256)
    throw new Problem(
      'arrival-entry',
      'This file was not kept, since nothing could be made of it.',
      entry.path,
      'Drop it by itself, or ask the supplier for it again.',
    );
  if (['new', 'version', 'variant'].includes(outcome) && !isTakeable(becomes))
    throw new Problem(
      'arrival-entry',
      `A ${becomes || 'file of no kind'} cannot stand on a shelf.`,
      entry.path,
      'Say first of which kind it is.',
    );
  if (becomes === SUPPORT_FILE && ![SUPPORT_FILE, 'document', 'unknown'].includes(entry.kind))
    throw new Problem(
      'arrival-kind',
      `This file is a ${entry.kind.replace('-', ' ')}, and no support file.`,
      entry.path,
      'Take it as what it is.',
    );
  if (['look', 'preset'].includes(becomes) && becomes !== entry.kind)
    throw new Problem(
      'arrival-kind',
      `Nothing in this file can be read as a ${becomes}.`,
      entry.path,
      'Take it as another kind, or bring in a descriptor of the editor that uses it.',
    );
}

interface Target {
  outcome: string;
  itemId?: string | null;
  entryId?: number | null;
}

function refuseWithoutTarget(rows: q.EntryRow[], { outcome, itemId, entryId }: Target): void {
  if (!['version', 'variant'].includes(outcome) || itemId || entryId) return;
  if (rows.some((entry) => !entry.target_item_id && !entry.target_entry_id))
    throw new Problem(
      'arrival-target',
      'A new version or a variant needs the item that it belongs to.',
      'item',
      'Choose the item.',
    );
}

async function takeWordBack(sql: Sql, person: Person, id: string, entries: number[]): Promise<number> {
  const changed = await q.asProposed(sql, id, entries);
  await record(sql, actorOf(person), 'arrival', id, 'corrected', null, { entries: changed, outcome: AS_PROPOSED });
  return changed;
}

/** Of an arrival that a person decides on, held until the transaction ends. */
async function toBeSettled(sql: Sql, id: string): Promise<void> {
  const arrival = await q.arrivalById(sql, id, true);
  if (arrival?.status !== 'ready')
    throw new Problem(
      'arrival-settled',
      'This arrival has been settled already, or is still being read.',
      id,
      'Reload the page.',
    );
}

/** A file gets another title, under which its item will stand. */
export async function titleEntry(
  person: Person,
  id: string,
  input: BodyOf<'POST /api/arrivals/:id/title'>,
): Promise<void> {
  allow(person, 'arrival.accept');
  const { entry, title } = checked(arrivalEndpoints['POST /api/arrivals/:id/title'].body, input);
  await transaction(async (sql) => {
    await toBeSettled(sql, id);
    const [before] = await q.entriesOf(sql, id, [entry]);
    if (!before)
      throw new Problem('not-found', 'There is no such file in this arrival.', String(entry), 'Reload the page.');
    await q.renameEntry(sql, id, entry, title);
    await record(sql, actorOf(person), 'arrival', id, 'corrected', { title: before.title }, { title });
  });
}

/** A person says otherwise: what the entries become, of which kind they are, and of which item. In bulk. */
export async function correctEntries(
  person: Person,
  id: string,
  input: BodyOf<'PATCH /api/arrivals/:id'>,
): Promise<{ changed: number }> {
  allow(person, 'arrival.accept');
  const correction = checked(arrivalEndpoints['PATCH /api/arrivals/:id'].body, input);
  return transaction(async (sql) => {
    await toBeSettled(sql, id);
    const ids = correction.group ? await q.groupIds(sql, id, correction.group, correction.words) : correction.entries;
    const rows = await q.entriesOf(sql, id, ids as number[]);
    const kind = correction.kind;
    if (!rows.length) throw new Problem('arrival-nothing', 'Nothing is chosen.', id, 'Choose at least one file.');
    if (correction.outcome === AS_PROPOSED) return { changed: await takeWordBack(sql, person, id, ids) };
    for (const entry of rows) refuseUntakeable(entry, correction.outcome, kind ?? entry.kind);
    refuseWithoutTarget(rows, correction);
    let changed = 0;
    for (const entry of rows)
      changed += await q.correctEntries(sql, id, [entry.id], {
        outcome: correction.outcome,
        kind,
        itemId:
          correction.outcome === 'new'
            ? null
            : (correction.itemId ?? (correction.entryId ? null : entry.target_item_id)),
        entryId:
          correction.outcome === 'new' || correction.itemId ? null : (correction.entryId ?? entry.target_entry_id),
      });
    await record(sql, actorOf(person), 'arrival', id, 'corrected', null, {
      entries: changed,
      outcome: correction.outcome,
    });
    return { changed };
  });
}

/** Whether what is being read is read by nobody: its job has ended, or has not been heard of for a while. */
const isStuck = async (sql: Sql, arrival: q.ArrivalRow): Promise<boolean> =>
  arrival.status === 'reading' && !(arrival.job_id !== null && (await jobLives(sql, arrival.job_id)));

/** Reads an arrival from its beginning, as after a fault, or when editors have become known since. What was corrected is proposed anew. */
export async function readAgain(person: Person, id: string): Promise<void> {
  allow(person, 'arrival.make');
  await transaction(async (sql) => {
    const arrival = await q.arrivalById(sql, id, true);
    if (!arrival) throw new Problem('not-found', 'There is no such arrival.', id, 'Go back to Arrival.');
    if (!['ready', 'failed'].includes(arrival.status) && !(await isStuck(sql, arrival)))
      throw new Problem(
        'arrival-settled',
        arrival.status === 'reading' ? 'This arrival is being read.' : 'This arrival cannot be read again.',
        arrival.name,
        'Reload the page.',
      );
    const job = await addJob(sql, 'arrival', `Read ${arrival.name}`, { arrival: id }, person.id);
    await q.arrivalJob(sql, id, job);
    await record(sql, actorOf(person), 'arrival', id, 'read again');
  });
}

export async function discardArrival(person: Person, id: string): Promise<void> {
  allow(person, 'arrival.accept');
  await transaction(async (sql) => {
    const arrival = await q.arrivalById(sql, id, true);
    if (!arrival || arrival.status === 'accepted')
      throw new Problem('arrival-settled', 'This arrival has been settled already.', id, 'Reload the page.');
    await q.arrivalStatus(sql, id, 'discarded');
    await record(sql, actorOf(person), 'arrival', id, 'discarded');
  });
}

/** A discarded arrival waits to be settled again, with all that was said of its files. */
export async function bringBackArrival(person: Person, id: string): Promise<void> {
  allow(person, 'arrival.accept');
  await transaction(async (sql) => {
    const arrival = await q.arrivalById(sql, id, true);
    if (arrival?.status !== 'discarded')
      throw new Problem('arrival-settled', 'This arrival is not discarded.', id, 'Reload the page.');
    const entries = await q.entriesOf(sql, id);
    const lost = entries.some((entry) => q.outcomesTaken.includes(entry.outcome) && !entry.sha256);
    if (lost || arrival.arrived < arrival.files)
      throw new Problem(
        'arrival-gone',
        'Its contents are not kept any more.',
        arrival.name,
        'Bring in the same files again.',
      );
    await q.arrivalStatus(sql, id, entries.length ? 'ready' : 'failed', entries.length ? null : notRead(arrival.name));
    await record(sql, actorOf(person), 'arrival', id, 'brought back');
  });
}

const notRead = (name: string): Problem =>
  new Problem('stopped', 'It was discarded before it had been read.', name, 'Read it again, or discard it.');

/** Discards an arrival that was read, or gives up one that is still arriving. */
export async function giveUpArrival(person: Person, id: string): Promise<void> {
  const { arrival } = await arrivalFor(person, id);
  await (arrival.status === 'arriving' ? dropArrival(person, id) : discardArrival(person, id));
}
