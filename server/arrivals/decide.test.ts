/** What a person decides about an arrival before it is taken, and what of that can be taken back. */
import { strToU8 } from 'fflate';
import sharp from 'sharp';
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import { cubeOf, oxbowOf } from '@/demo/files';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { pool, transaction } from '../db/pool';
import { many } from '../db/query';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { addFrame } from '../frames/service';
import { applyBulk } from '../items/edit';
import { itemFor } from '../items/service';
import { changeLicence, listLicences } from '../licences/service';
import { addShelf } from '../shelves/service';
import { writeIntoFile } from '../versions/service';
import { arrive } from './testing';
import { entryPaper, entryPicture } from './shown';
import {
  acceptArrival,
  arrivalFor,
  arrivalView,
  bringBackArrival,
  correctEntries,
  discardArrival,
  discardedArrivals,
  listArrivals,
  titleEntry,
  undoArrival,
} from './service';

withDatabase();
let shelf = '';
let frame = '';
beforeAll(async () => {
  shelf = await addShelf(people.librarian, { name: 'Test' });
  const png = await sharp({ create: { width: 30, height: 20, channels: 3, background: '#806040' } })
    .png()
    .toBuffer();
  frame = await transaction((sql) =>
    addFrame(
      sql,
      { personId: null, name: 'test' },
      { name: 'Plain', light: '', png, width: 30, height: 20, position: 0 },
    ),
  );
});

const cube = (title: string, warmth: number) => strToU8(cubeOf({ title, headings: [], settings: { warmth } }, 5));

const entryAt = async (id: string, path: string) =>
  must((await arrivalFor(people.librarian, id)).entries.find((entry) => entry.path === path));

describe('before it is taken', () => {
  test('a title is corrected, and the item bears it', async () => {
    const id = await arrive({ 'a.cube': cube('Tpyo', 11) });
    const { id: entry } = await entryAt(id, 'a.cube');
    await expect(titleEntry(people.librarian, id, { entry, title: '  ' })).rejects.toMatchObject({
      code: 'input-invalid',
    });
    await titleEntry(people.librarian, id, { entry, title: 'Typo' });
    const { items } = await acceptArrival(people.librarian, id, { shelfId: shelf });
    const [item] = await many<{ title: string }>(pool(), 'select title from item where id = $1', [items[0]]);
    expect(item?.title).toBe('Typo');
    await expect(titleEntry(people.librarian, id, { entry, title: 'Later' })).rejects.toMatchObject({
      code: 'arrival-settled',
    });
  });

  test('what was left out is what was proposed again, and of what item', async () => {
    const first = await arrive({ 'Reed.cube': cube('Reed', 21) });
    const { items } = await acceptArrival(people.librarian, first, { shelfId: shelf });
    const other = await arrive({ 'Sedge.cube': cube('Sedge', -33) });
    const { items: others } = await acceptArrival(people.librarian, other, { shelfId: shelf });
    const id = await arrive({ 'Reed.cube': cube('Reed', 24) });
    const before = await entryAt(id, 'Reed.cube');
    expect([before.outcome, before.target_item_id]).toEqual(['version', items[0]]);
    const becomes = (outcome: 'document' | 'version' | 'proposed', itemId?: string) =>
      correctEntries(people.librarian, id, { entries: [before.id], outcome, ...(itemId ? { itemId } : {}) });
    await becomes('version', must(others[0]));
    await becomes('document');
    expect(await entryAt(id, 'Reed.cube')).toMatchObject({ outcome: 'document', corrected: true });
    await becomes('proposed');
    expect(await entryAt(id, 'Reed.cube')).toMatchObject({
      outcome: 'version',
      corrected: false,
      target_item_id: items[0],
    });
  });

  test('files are found by path and title, and a group is corrected as far as it was found', async () => {
    const id = await arrive({
      'Looks/Amber.cube': cube('Amber 100%', 51),
      'Looks/Birch.cube': cube('Birch', -52),
    });
    const found = async (words: string) =>
      (await arrivalView(people.librarian, id, null, words)).groups.flatMap((group) => group.rows.map((e) => e.path));
    expect(await found('looks/')).toHaveLength(2);
    expect(await found('BIRCH')).toEqual(['Looks/Birch.cube']);
    expect(await found('100%')).toEqual(['Looks/Amber.cube']);
    expect(await found('_')).toEqual([]);
    await correctEntries(people.librarian, id, { group: 'new', words: 'birch', outcome: 'document' });
    expect((await entryAt(id, 'Looks/Amber.cube')).outcome).toBe('new');
    expect((await entryAt(id, 'Looks/Birch.cube')).outcome).toBe('document');
  });

  test('a look is seen on a frame, and is what it does to it', async () => {
    const id = await arrive({ 'Hot.cube': cube('Hot', 90), 'Licence.txt': strToU8('For one studio.') });
    const { id: entry } = await entryAt(id, 'Hot.cube');
    const picture = await entryPicture(people.librarian, id, entry, frame);
    const { data } = await sharp(picture).removeAlpha().raw().toBuffer({ resolveWithObject: true });
    // warmer: more red than the frame's 128, less blue than its 64
    expect(data[0]).toBeGreaterThan(132);
    expect(data[2]).toBeLessThan(60);
    const paper = await entryAt(id, 'Licence.txt');
    await expect(entryPicture(people.librarian, id, paper.id, frame)).rejects.toMatchObject({ code: 'preview-kind' });
    await expect(entryPicture(people.retoucher, id, entry, frame)).rejects.toMatchObject({ code: 'not-allowed' });
  });

  test('its papers can be read', async () => {
    const id = await arrive({
      'Pack/Licence.txt': Buffer.from('F\u00fcr ein Studio.\r\nNot to be spread.', 'latin1'),
      'Pack/Leaflet.pdf': strToU8('%PDF-1.4 leaflet'),
      'Pack/Warm.cube': cube('Warm one', 43),
    });
    const { papers } = await arrivalView(people.librarian, id);
    expect(papers.map((paper) => paper.path)).toEqual(['Pack/Leaflet.pdf', 'Pack/Licence.txt']);
    const read = async (path: string) =>
      (await entryPaper(people.librarian, id, must(papers.find((paper) => paper.path === path)).id)).text;
    expect(await read('Pack/Licence.txt')).toBe('Für ein Studio.\nNot to be spread.');
    expect(await read('Pack/Leaflet.pdf')).toBeNull();
    await expect(entryPaper(people.librarian, id, Number.NaN)).rejects.toMatchObject({ code: 'not-found' });
  });
});

describe('taken back', () => {
  test('a discarded arrival waits again as it was left', async () => {
    const id = await arrive({ 'Moss.cube': cube('Moss', 61) }, 'Moss pack');
    await titleEntry(people.librarian, id, { entry: (await entryAt(id, 'Moss.cube')).id, title: 'Moss, corrected' });
    await discardArrival(people.librarian, id);
    expect((await listArrivals(people.librarian)).map((one) => one.id)).not.toContain(id);
    expect((await discardedArrivals(people.librarian)).map((one) => one.id)).toContain(id);
    await bringBackArrival(people.librarian, id);
    await expect(bringBackArrival(people.librarian, id)).rejects.toMatchObject({ code: 'arrival-settled' });
    expect((await entryAt(id, 'Moss.cube')).title).toBe('Moss, corrected');
    await acceptArrival(people.librarian, id, { shelfId: shelf });
  });

  test('not one whose contents are gone, nor is one offered that was discarded long ago', async () => {
    const id = await arrive({ 'Lichen.cube': cube('Lichen', -61) });
    await discardArrival(people.librarian, id);
    await pool().query('update arrival_entry set sha256 = null where arrival_id = $1', [id]);
    await expect(bringBackArrival(people.librarian, id)).rejects.toMatchObject({ code: 'arrival-gone' });
    await pool().query(`update arrival set settled_at = now() - interval '31 days' where id = $1`, [id]);
    expect((await discardedArrivals(people.librarian)).map((one) => one.id)).not.toContain(id);
  });

  const countOf = async (table: 'shelf' | 'licence', name: string) =>
    (await many(pool(), `select 1 from ${table} where name = $1`, [name])).length;

  test('an intake takes the shelf and the licence along that it made', async () => {
    const id = await arrive({ 'Fern.cube': cube('Fern', 71), 'Frond.cube': cube('Frond', -72) });
    const onto = { newShelf: 'Ferns', newLicence: { name: 'Fern terms' } };
    await acceptArrival(people.librarian, id, onto);
    expect([await countOf('shelf', 'Ferns'), await countOf('licence', 'Fern terms')]).toEqual([1, 1]);
    await undoArrival(people.librarian, id);
    expect([await countOf('shelf', 'Ferns'), await countOf('licence', 'Fern terms')]).toEqual([0, 0]);
    // and again, which would be refused if the licence were still there
    await acceptArrival(people.librarian, id, onto);
  });

  test('but not what others use, or have worked on since', async () => {
    const id = await arrive({ 'Bog.cube': cube('Bog', 81) });
    await acceptArrival(people.librarian, id, { newShelf: 'Bogs', newLicence: { name: 'Bog terms' } });
    const licence = must((await listLicences(people.librarian)).find((one) => one.name === 'Bog terms'));
    await changeLicence(people.librarian, licence.id, { name: 'Bog terms', may_spread: 'no' });
    const [bogs] = await many<{ id: string }>(pool(), `select id from shelf where name = 'Bogs'`);
    const next = await arrive({ 'Fen.cube': cube('Fen', -83) });
    await acceptArrival(people.librarian, next, { shelfId: must(bogs).id });
    await undoArrival(people.librarian, id);
    expect([await countOf('shelf', 'Bogs'), await countOf('licence', 'Bog terms')]).toEqual([1, 1]);
  });
});

test('source, price and access are kept with what came, and changed part by part for many', async () => {
  const id = await arrive({ 'Tarn.cube': cube('Tarn', 37) });
  const { items } = await acceptArrival(people.librarian, id, {
    shelfId: shelf,
    origin: 'free',
    source: { address: 'https://tarn.example', price: '40 EUR', access: 'the account of the studio' },
  });
  await applyBulk(people.librarian, { items, set: { source: { price: '50 EUR' }, origin: 'bought' } });
  const [item] = await many(pool(), 'select origin, source from item where id = any ($1)', [items]);
  expect(item).toEqual({
    origin: 'bought',
    source: { address: 'https://tarn.example', price: '50 EUR', access: 'the account of the studio' },
  });
});

test('who made it and whose it is are taken from the file, and written back into it', async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 'test' }, oxbow2, 'oxbow'));
  const packet = oxbowOf({ title: 'Fell', headings: [], steps: [['lamp', { stops: 0.3 }]] }).replace(
    '</dc:title>',
    () =>
      '</dc:title><dc:creator><rdf:Seq><rdf:li>Ines Sable</rdf:li></rdf:Seq></dc:creator>' +
      '<dc:rights><rdf:Alt><rdf:li xml:lang="x-default">one studio</rdf:li></rdf:Alt></dc:rights>',
  );
  const id = await arrive({ 'Fell.xmp': strToU8(packet) });
  const { items } = await acceptArrival(people.librarian, id, { shelfId: shelf });
  const [item = ''] = items;
  const borne = () =>
    many(pool(), 'select creator, rights, description, web_statement from item where id = $1', [item]);
  expect(await borne()).toEqual([{ creator: 'Ines Sable', rights: 'one studio', description: '', web_statement: '' }]);

  await applyBulk(people.librarian, {
    items,
    set: { description: 'for grey days', web_statement: 'https://x.example' },
  });
  await writeIntoFile(people.librarian, item);
  const [newest] = (await itemFor(people.librarian, item)).versions;
  expect(newest?.facts.identity).toEqual({
    creator: 'Ines Sable',
    rights: 'one studio',
    description: 'for grey days',
  });
});
