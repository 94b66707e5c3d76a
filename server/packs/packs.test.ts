/** Packs as units: what is in one, what it is found by, what is said of it and of all that came in it. */
import { strToU8 } from 'fflate';
import { beforeAll, expect, test } from 'vitest';
import { must } from '@/core/must';
import { cubeOf } from '@/demo/files';
import { acceptArrival, undoArrival } from '../arrivals/service';
import { arrive } from '../arrivals/testing';
import { pool } from '../db/pool';
import { many } from '../db/query';
import { people, withDatabase } from '../db/testing/database';
import { addLicence } from '../licences/service';
import { searchCounts, searchItems } from '../search/service';
import { addShelf } from '../shelves/service';
import { changePack, listPacks, packFor } from './service';

withDatabase();
let shelf = '';
beforeAll(async () => {
  shelf = await addShelf(people.librarian, { name: 'Test' });
});

const cube = (title: string, warmth: number) => strToU8(cubeOf({ title, headings: [], settings: { warmth } }, 5));

async function deliver(name: string, files: Record<string, Uint8Array>, release = ''): Promise<string> {
  const arrival = await arrive(files, name);
  await acceptArrival(people.librarian, arrival, { shelfId: shelf, supplier: 'Fathom Color', release });
  return arrival;
}
const packOf = async (arrival: string) =>
  must((await listPacks(people.librarian)).find((pack) => pack.arrival_id === arrival));
const titles = async (search: Record<string, string>) =>
  (await searchItems(people.librarian, search)).rows.map((row) => row.title);

test('a pack knows its items, its papers, and the release after it', async () => {
  const licence = strToU8('One studio.');
  const first = await deliver(
    'Reef',
    { 'Coral.cube': cube('Coral', 11), 'Kelp.cube': cube('Kelp', -12), 'Licence.txt': licence },
    '1',
  );
  const second = await deliver(
    'Reef 2',
    { 'Coral.cube': cube('Coral', 14), 'Kelp.cube': cube('Kelp', -12), 'Urchin.cube': cube('Urchin', 33) },
    '2',
  );
  const [one, two] = [await packOf(first), await packOf(second)];
  expect(one).toMatchObject({ items: 2, drafts: 2, release: '1', next_id: two.id });
  const before = await packFor(people.librarian, one.id);
  expect(before.papers.map((paper) => paper.path)).toEqual(['Licence.txt']);
  expect(before.release).toBeNull();
  expect(before.members.map((member) => [member.title, member.number, member.newest])).toEqual([
    ['Coral', 1, 2],
    ['Kelp', 1, 1],
  ]);
  const after = await packFor(people.librarian, two.id);
  expect(after.members).toHaveLength(3);
  expect(Object.fromEntries(must(after.release).changes.map((change) => [change.title, change.what]))).toEqual({
    Coral: 'changed',
    Kelp: 'same',
    Urchin: 'added',
  });
  // who may not look into arrivals sees the pack without what the supplier wrote
  const seen = await packFor(people.retoucher, two.id);
  expect(seen).toMatchObject({ papers: [], release: null });
  expect(seen.members).toHaveLength(3);
});

test('items are found by their pack and its release; not any more when it is put back', async () => {
  const arrival = await deliver(
    'Marsh',
    { 'Rush.cube': cube('Rush', 41), 'Bittern.cube': cube('Bittern', -42) },
    '2026',
  );
  expect(await titles({ pack: 'Marsh' })).toEqual(['Bittern', 'Rush']);
  expect(await titles({ release: 'Marsh, 2026' })).toEqual(['Bittern', 'Rush']);
  const { facets } = await searchCounts(people.librarian, {});
  expect(facets).toContainEqual({ key: 'pack', value: 'Marsh', n: 2, more: false });
  const pack = await packOf(arrival);
  await changePack(people.librarian, pack.id, { name: 'Marshes', release: '2026' });
  expect(await titles({ pack: 'Marsh' })).toEqual([]);
  expect(await titles({ pack: 'Marshes' })).toEqual(['Bittern', 'Rush']);
  const other = await deliver('Dune', { 'Marram.cube': cube('Marram', 51), 'Lark.cube': cube('Lark', -52) });
  await undoArrival(people.librarian, other);
  expect(await titles({ pack: 'Dune' })).toEqual([]);
});

test('what is said of a pack is said of its items too, where one wants it', async () => {
  const arrival = await deliver('Fen', { 'Sedge.cube': cube('Sedge', 61), 'Alder.cube': cube('Alder', -62) });
  const pack = await packOf(arrival);
  const licenceId = await addLicence(people.librarian, { name: 'Fen terms' });
  const said = { name: 'Fen', supplier: 'Fen & Co', licenceId, source: { price: '20 EUR' } };
  expect(await changePack(people.librarian, pack.id, said)).toEqual({ changed: 0 });
  const rows = () =>
    many(
      pool(),
      `
        select distinct supplier, licence_id, source
        from item
        where title in ('Sedge', 'Alder')
      `,
      [],
    );
  expect(await rows()).toEqual([{ supplier: 'Fathom Color', licence_id: null, source: {} }]);
  expect(await changePack(people.librarian, pack.id, { ...said, items: true })).toMatchObject({ changed: 2 });
  expect(await rows()).toEqual([{ supplier: 'Fen & Co', licence_id: licenceId, source: { price: '20 EUR' } }]);
  await expect(changePack(people.librarian, pack.id, { name: ' ' })).rejects.toMatchObject({ code: 'input-invalid' });
  await expect(changePack(people.retoucher, pack.id, said)).rejects.toMatchObject({ code: 'not-allowed' });
});
