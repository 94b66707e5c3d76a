import { beforeAll, describe, expect, test } from 'vitest';
import { houseLooks } from '@/demo/designs';
import { cubeOf } from '@/demo/files';
import { putBlob } from '../blobs/service';
import { people, withDatabase } from '../db/testing/database';
import { transaction } from '../db/pool';
import { actorOf } from '../people/roles';
import { createItem } from './create';
import { addShelf, describeItem, itemFor, listSpines, setRibbon } from './service';

withDatabase();
let bench = '', other = '';
const make = (title: string, shelfId: string, headings: string[] = []) => transaction(async (sql) => createItem(sql, actorOf(people.librarian), { kind: 'look', title, headings, shelfId, supplier: '', sha: await putBlob(sql, Buffer.from(cubeOf(houseLooks[0]!, 2))), fileName: `${title}.cube`, format: 'cube', facts: { kind: '3d', size: 2 }, selvedge: null, notes: '' }));
beforeAll(async () => {
  [bench, other] = [await addShelf(people.librarian, { name: 'Bench' }), await addShelf(people.librarian, { name: 'Other' })];
  for (let i = 1; i <= 30; i++) await make(`Plain ${String(i).padStart(2, '0')}`, bench);
  await make('Kiln Glaze Deep', other, ['Glazes', 'Tungsten']);
});

describe('the spines of a shelf', () => {
  test('the first of each shelf in order, and how many there are in all', async () => {
    const found = await listSpines(people.retoucher, {}), first = found.filter((s) => s.shelf_id === bench);
    expect(first).toHaveLength(24);
    expect(first.map((s) => s.title).slice(0, 3)).toEqual(['Plain 01', 'Plain 02', 'Plain 03']);
    expect(new Set(first.map((s) => s.matching))).toEqual(new Set([30]));
    expect(await listSpines(people.retoucher, { shelf: bench })).toHaveLength(30);
  });
  test('found by title, heading, and with a slip of the finger only where nothing is spelled so', async () => {
    const titles = async (words: string) => (await listSpines(people.retoucher, { words })).map((s) => s.title);
    expect(await titles('glaze')).toEqual(['Kiln Glaze Deep']);
    expect(await titles('tungsten')).toEqual(['Kiln Glaze Deep']);
    expect(await titles('kiln galze')).toEqual(['Kiln Glaze Deep']);
    expect(await titles('plain 07')).toEqual(['Plain 07']);
    expect(await titles('100%')).toEqual([]);
  });
  test('a ribbon is one’s own, the house’s is everybody’s', async () => {
    const [kiln] = await listSpines(people.retoucher, { words: 'kiln' });
    await setRibbon(people.retoucher, kiln!.id, { on: true, whose: 'mine' });
    expect((await listSpines(people.retoucher, { ribbon: true })).map((s) => [s.title, s.mine, s.house])).toEqual([['Kiln Glaze Deep', true, false]]);
    expect(await listSpines(people.librarian, { ribbon: true })).toEqual([]);
    await expect(setRibbon(people.retoucher, kiln!.id, { on: true, whose: 'house' })).rejects.toMatchObject({ code: 'not-allowed' });
    await setRibbon(people.librarian, kiln!.id, { on: true, whose: 'house' });
    expect((await listSpines(people.lead, { ribbon: true })).map((s) => s.house)).toEqual([true]);
  });
  test('who edits what someone else changed meanwhile is told, and nothing is lost', async () => {
    const { itemId } = await make('Twice Described', other), { item } = await itemFor(people.librarian, itemId);
    await describeItem(people.librarian, itemId, { revision: item.revision, title: 'Once Described', description: '' });
    await expect(describeItem(people.librarian, itemId, { revision: item.revision, title: 'Too Late', description: '' })).rejects.toMatchObject({ code: 'edited-meanwhile' });
    expect((await itemFor(people.librarian, itemId)).item.title).toBe('Once Described');
  });
});
