/** Taking an arrival onto the shelves in one transaction, and putting it back whole. */
import type { InferType } from 'yup';
import type { BodyOf } from '@/core/api';
import { arrivalEndpoints } from '@/core/api/arrivals';
import { must } from '@/core/must';
import { fileNameOf } from '@/core/paths';
import { v7 } from 'uuid';
import { isTakeable } from '@/core/recognise';
import { Problem } from '@/core/problem';
import { getBlob, hex } from '../blobs/service';
import { transaction, type Sql } from '../db/pool';
import { propose, takeBackProposals } from '../editors/proposals';
import { record, type Actor } from '../activity/queries';
import { frameFromFile } from '../frames/service';
import { addVersion, createItem } from '../items/create';
import { addShelf } from '../shelves/service';
import { addLicence } from '../licences/service';
import { addJob } from '../jobs/service';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../input';
import * as q from './queries';

/** As it is once it is checked. */
type Asked = Omit<
  InferType<(typeof arrivalEndpoints)['POST /api/arrivals/:id']['body']>,
  'shelfId' | 'newShelf' | 'newLicence'
>;
export interface Taken {
  items: string[];
  versions: number;
  frames: number;
  descriptors: number;
}

const BECOME_ITEMS = ['new', 'version', 'variant'];
const settled = (id: string): Problem =>
  new Problem(
    'arrival-settled',
    'This arrival has been settled already, or is still being read.',
    id,
    'Reload the page.',
  );

/** The entries that are taken, in the order in which they can be: items first, then what belongs to them. */
async function chosenOf(sql: Sql, rows: readonly q.EntryRow[], asked: Asked, id: string): Promise<q.EntryRow[]> {
  const wanted = asked.entries ? new Set(asked.entries) : null;
  const except = new Set(asked.except);
  const left = new Set<number>();
  for (const group of asked.exceptGroups) for (const entry of await q.groupIds(sql, id, group)) left.add(entry);
  const isChosen = (entry: q.EntryRow): boolean =>
    (wanted ? wanted.has(entry.id) : q.outcomesTaken.includes(entry.outcome)) &&
    left.has(entry.id) === except.has(entry.id);
  const chosen = rows.filter(isChosen);
  if (!chosen.length)
    throw new Problem('arrival-nothing', 'Nothing is chosen.', id, 'Choose at least one file, or discard the arrival.');
  const bad = chosen.find(
    ({ outcome, kind }) => !q.outcomesTaken.includes(outcome) || (BECOME_ITEMS.includes(outcome) && !isTakeable(kind)),
  );
  if (bad)
    throw new Problem(
      'arrival-entry',
      'Only what can stand on a shelf, frames and descriptors are taken.',
      bad.path,
      'Take this file out of the choice, or say what it is to become.',
    );
  const belongs = (entry: q.EntryRow): number => Number(entry.target_entry_id !== null);
  return chosen.sort((x, y) => belongs(x) - belongs(y) || x.path.localeCompare(y.path));
}

/** One arrival being taken: where things go, and what came of them so far. */
interface Taking {
  sql: Sql;
  actor: Actor;
  arrival: q.ArrivalRow;
  asked: Asked;
  shelfId: string;
  licenceId: string | null;
  /** null for an arrival of one file, which makes no pack */ packId: string | null;
  madeOf: Map<number, Made>;
  versionOfSha: Map<string, string>;
  frames: string[];
  taken: Taken;
}
interface Made {
  itemId: string;
  versionId: string;
}

/** It is only proposed: the lead decides whether it becomes what the studio goes by. */
async function takeDescriptor({ sql, actor, arrival, taken }: Taking, entry: q.EntryRow): Promise<void> {
  const bytes = await getBlob(must(entry.sha256), sql);
  await propose(sql, actor, JSON.parse(bytes.toString('utf8')), { cameFrom: entry.path, arrivalId: arrival.id });
  await q.entryTaken(sql, entry.id, null);
  taken.descriptors++;
}

async function takeFrame({ sql, actor, frames, taken }: Taking, entry: q.EntryRow): Promise<void> {
  const frame = await frameFromFile(sql, actor, {
    name: entry.title,
    fileName: fileNameOf(entry.path),
    sha: must(entry.sha256),
    facts: entry.facts,
  });
  frames.push(frame);
  await q.entryTaken(sql, entry.id, null, frame);
  taken.frames++;
}

const versionIn = (entry: q.EntryRow, arrival: q.ArrivalRow) => ({
  kind: entry.kind as 'look',
  sha: must(entry.sha256),
  fileName: fileNameOf(entry.path),
  format: entry.format,
  facts: entry.facts,
  selvedge: entry.selvedge,
  notes: `from ${arrival.name}`,
  internalId: entry.internal_id,
  content: entry.content_sha256,
  fingerprint: entry.fingerprint,
});

async function takeAsItem({ sql, actor, arrival, asked, ...taking }: Taking, entry: q.EntryRow): Promise<Made> {
  await q.lockContent(sql, must(entry.sha256));
  const held = entry.corrected ? undefined : await q.heldBySha(sql, must(entry.sha256));
  if (held)
    throw new Problem(
      'arrival-held',
      `What ${entry.path} holds came in meanwhile, as ${held.title}.`,
      entry.path,
      'Read the arrival again.',
    );
  const made = await createItem(sql, actor, {
    ...versionIn(entry, arrival),
    title: entry.title,
    headings: entry.headings,
    shelfId: asked.byKind[entry.kind] ?? taking.shelfId,
    supplier: asked.supplier,
    licenceId: taking.licenceId,
    source: asked.source,
    origin: asked.origin ?? undefined,
    creator: asked.source.author ?? '',
  });
  taking.taken.items.push(made.itemId);
  return made;
}

async function takeAsVersion({ sql, actor, arrival, madeOf, taken }: Taking, entry: q.EntryRow): Promise<Made> {
  const itemId = entry.target_item_id ?? madeOf.get(entry.target_entry_id ?? -1)?.itemId;
  if (!itemId)
    throw new Problem(
      'arrival-target',
      `${entry.path} belongs to ${entry.target_path ?? 'an item'}, which is not taken.`,
      entry.path,
      'Take that one too, or make this one an item of its own.',
    );
  const isVariant = entry.outcome === 'variant';
  const versionId = await addVersion(sql, actor, itemId, {
    ...versionIn(entry, arrival),
    variant: isVariant ? (entry.likeness?.mark ?? 'another variant') : '',
  });
  const action = isVariant ? 'variant added' : 'version added';
  await record(sql, actor, 'item', itemId, action, null, { path: entry.path, arrival: arrival.name });
  taken.versions++;
  return { itemId, versionId };
}

async function takeEntry(taking: Taking, entry: q.EntryRow): Promise<void> {
  if (entry.outcome === 'descriptor') return takeDescriptor(taking, entry);
  if (entry.outcome === 'frame') return takeFrame(taking, entry);
  const made = entry.outcome === 'new' ? await takeAsItem(taking, entry) : await takeAsVersion(taking, entry);
  taking.madeOf.set(entry.id, made);
  taking.versionOfSha.set(hex(must(entry.sha256)), made.versionId);
  await q.entryTaken(taking.sql, entry.id, made.versionId);
  if (taking.packId) await q.insertMember(taking.sql, taking.packId, entry.path, made.versionId);
}

/** What is held already belongs to the pack all the same: as a member, not as an item. */
async function addDuplicates(taking: Taking, rows: readonly q.EntryRow[]): Promise<void> {
  const { sql, packId, madeOf, versionOfSha } = taking;
  if (!packId) return;
  for (const entry of rows) {
    if (entry.outcome !== 'duplicate') continue;
    const versionId =
      entry.held_version_id ??
      madeOf.get(entry.target_entry_id ?? -1)?.versionId ??
      versionOfSha.get(hex(must(entry.sha256)));
    if (versionId) await q.insertMember(sql, packId, entry.path, versionId);
  }
}

async function makePack(sql: Sql, arrival: q.ArrivalRow, asked: Asked, licenceId: string | null): Promise<string> {
  const packId = v7();
  await q.insertPack(sql, {
    id: packId,
    name: arrival.name.replace(/\.zip$/i, ''),
    arrivalId: arrival.id,
    supplier: asked.supplier,
    release: asked.release,
    source: asked.source,
    licenceId,
    previousId: arrival.previous_pack_id,
  });
  return packId;
}

/** Takes the chosen entries as what they are to become: all of them or none. */
export async function acceptArrival(
  person: Person,
  id: string,
  input: BodyOf<'POST /api/arrivals/:id'>,
): Promise<Taken> {
  allow(person, 'arrival.accept');
  const {
    shelfId: onto,
    newShelf,
    newLicence,
    ...asked
  } = checked(arrivalEndpoints['POST /api/arrivals/:id'].body, input);
  if (!onto && !newShelf)
    throw new Problem('input-invalid', 'Choose a shelf.', 'shelf', 'Choose one, or name a new one.');
  return transaction(async (sql) => {
    const arrival = await q.arrivalById(sql, id, true);
    if (!arrival || arrival.status !== 'ready') throw settled(id);
    const rows = await q.entriesOf(sql, id);
    const chosen = await chosenOf(sql, rows, asked, id);
    const shelfId = newShelf ? await addShelf(person, { name: newShelf }) : must(onto);
    const licenceId = newLicence ? await addLicence(person, newLicence) : asked.licenceId;
    await q.arrivalSource(sql, id, asked.source, licenceId);
    await q.arrivalMade(sql, id, newShelf ? shelfId : null, newLicence ? licenceId : null);
    const taking: Taking = {
      sql,
      actor: actorOf(person),
      arrival,
      asked,
      shelfId,
      licenceId,
      packId: rows.length > 1 ? await makePack(sql, arrival, asked, licenceId) : null,
      madeOf: new Map(),
      versionOfSha: new Map(),
      frames: [],
      taken: { items: [], versions: 0, frames: 0, descriptors: 0 },
    };
    for (const entry of chosen) await takeEntry(taking, entry);
    await addDuplicates(taking, rows);
    const { frames, taken } = taking;
    const title = `Make ${frames.length === 1 ? 'a frame' : `${frames.length} frames`} ready`;
    if (frames.length) await addJob(sql, 'frames', title, { frames }, person.id);
    await q.arrivalStatus(sql, id, 'accepted');
    await record(sql, taking.actor, 'arrival', id, 'accepted', null, { ...taken, items: taken.items.length });
    return taken;
  });
}

/** Puts an accepted arrival back whole, unless something depends on what it made: then that is named, and nothing happens. */
export async function undoArrival(
  person: Person,
  id: string,
): Promise<{ versions: number; items: number; frames: number }> {
  allow(person, 'arrival.accept');
  return transaction(async (sql: Sql) => {
    const arrival = await q.arrivalById(sql, id, true);
    if (!arrival || arrival.status !== 'accepted')
      throw new Problem('arrival-settled', 'Only an accepted arrival can be put back.', id, 'Reload the page.');
    const hang = await q.dependents(sql, id);
    if (hang.length)
      throw new Problem(
        'arrival-needed',
        `Something depends on what came in: ${hang.map((h) => `${h.n} ${h.n === 1 ? 'is' : 'are'} ${h.what}${h.example ? ` (${h.example})` : ''}`).join('; ')}.`,
        arrival.name,
        'Undo those first, then put the arrival back.',
      );
    const back = await q.takeBack(sql, id);
    await takeBackProposals(sql, actorOf(person), id);
    await q.arrivalStatus(sql, id, 'ready');
    await record(sql, actorOf(person), 'arrival', id, 'put back', null, back);
    return back;
  });
}
