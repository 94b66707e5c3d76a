/** Packs as units: seen, described, and changed with all that came in them. */
import type { BodyOf } from '@/core/api';
import { packEndpoints } from '@/core/api/packs';
import { filledSource } from '@/core/item/fields';
import { Problem } from '@/core/problem';
import { record } from '../activity/queries';
import { arrivalById, papersOf } from '../arrivals/queries';
import { compareRelease, type ReleaseView } from '../arrivals/releases';
import { pool, transaction } from '../db/pool';
import { checked } from '../input';
import { applyBulk } from '../items/edit';
import { actorOf, allow, may, type Person } from '../people/roles';
import * as q from './queries';

export type { MemberRow, PackRow } from './queries';

export async function listPacks(person: Person): Promise<q.PackRow[]> {
  allow(person, 'view');
  return q.packs(pool());
}

export interface PackView {
  pack: q.PackRow;
  members: q.MemberRow[];
  places: { id: string; name: string; files: number }[];
  /** licences and read-me files, for who may look into arrivals */
  papers: { id: number; path: string; format: string }[];
  /** against the release before; null where there is none */ release: ReleaseView | null;
}

const unknown = (id: string): Problem =>
  new Problem('not-found', 'There is no such pack.', id, 'Go back to Packs; its arrival may have been undone.');

export async function packFor(person: Person, id: string): Promise<PackView> {
  allow(person, 'view');
  const sql = pool();
  const pack = await q.packById(sql, id);
  if (!pack) throw unknown(id);
  const looksIntoArrivals = may(person, 'arrival.read');
  const [members, places, papers, arrival] = await Promise.all([
    q.members(sql, id),
    q.placesOf(sql, id),
    looksIntoArrivals ? papersOf(sql, pack.arrival_id) : [],
    looksIntoArrivals ? arrivalById(sql, pack.arrival_id) : undefined,
  ]);
  return { pack, members, places, papers, release: arrival ? await compareRelease(person, arrival) : null };
}

/**
 * Says what a pack is called, which release it is, from whom and under which licence. With `items`, supplier, licence and
 * source are said of what came in it as well; a part of the source that is not said here stays as it is there.
 */
export async function changePack(
  person: Person,
  id: string,
  input: BodyOf<'PATCH /api/packs/:id'>,
): Promise<{ changed: number }> {
  allow(person, 'item.edit');
  const { items, ...said } = checked(packEndpoints['PATCH /api/packs/:id'].body, input);
  const source = filledSource(said.source);
  return transaction(async (sql) => {
    const before = await q.lockPack(sql, id);
    if (!before) throw unknown(id);
    await q.updatePack(sql, id, { ...said, source, licenceId: said.licenceId });
    await record(sql, actorOf(person), 'pack', id, 'described', before, { name: said.name, release: said.release });
    if (!items) return { changed: 0 };
    const members = await q.members(sql, id);
    const set = { supplier: said.supplier, licence_id: said.licenceId, source };
    return applyBulk(person, { items: members.map((member) => member.item_id), set });
  });
}
