import { must } from '@/core/must';
import { beforeAll, describe, expect, test } from 'vitest';
import { parseDescriptor } from '@/core/editor/descriptor';
import { readCube } from '@/core/look';
import { recognise } from '@/core/recognise';
import { houseLooks, oxbowPresets } from '@/demo/designs';
import { cubeOf, oxbowOf } from '@/demo/files';
import card from '@/standins/descriptors/perrin-alder-1.json';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { getBlob, putBlob } from '../blobs/service';
import { people, withDatabase } from '../db/testing/database';
import { pool, transaction } from '../db/pool';
import { bringDescriptor } from '../editors/service';
import { createItem } from '../items/create';
import { applyBulk, editItem } from '../items/edit';
import { itemFor } from '../items/service';
import { actorOf } from '../people/roles';
import { versionById } from '../items/queries';
import { confirmEncoding } from '../items/encoding';
import { addShelf } from '../shelves/service';
import { renditionFor } from './service';
import { one } from '../db/query';
import { itemOf } from '../items/testing/item-of';

withDatabase();
let look = '';
let preset = '';
let lookItem = '';
let presetItem = '';
let shelf = '';
const [marlstone, oxbow, camera] = [marlstone4, oxbow2, card].map((d) => parseDescriptor(d));
const make = (text: string, name: string, shelfId: string) => itemOf(text, name, { headings: ['House'], shelfId });
beforeAll(async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 't' }, oxbow2, 'd'));
  shelf = await addShelf(people.librarian, { name: 'R' });
  ({ versionId: look, itemId: lookItem } = await make(cubeOf(must(houseLooks[0]), 9), 'x.cube', shelf));
  ({ versionId: preset, itemId: presetItem } = await make(oxbowOf(must(oxbowPresets[0])), 'x.xmp', shelf));
  await confirmEncoding(people.librarian, look, {
    primaries: 'sRGB',
    transfer: 'sRGB',
    range: 'full',
    referred: 'display',
    white: 'D65',
  });
});
const takes = (d: typeof oxbow, asIs: boolean) => must(must(d).accepts.find((a) => !!a.writer.asIs === asIs));
const made = async (version: string, descriptor: typeof oxbow, asIs = false) => {
  const rendition = await transaction(async (sql) =>
    renditionFor(sql, must(await versionById(sql, version)), must(descriptor), takes(descriptor, asIs)),
  );
  return { ...rendition, bytes: await getBlob(rendition.sha256) };
};
const rows = async () => (await one<{ n: number }>(pool(), 'select count(*)::int as n from rendition')).n;
const rename = async (item: string, title: string) => {
  const before = await one<{ title: string; revision: number }>(
    pool(),
    'select title, revision from item where id = $1',
    [item],
  );
  await editItem(people.librarian, item, { revision: before.revision, base: { title: before.title }, mine: { title } });
};

describe('a rendition', () => {
  test('is made once for an editor and version, then is the same bytes for ever', async () => {
    const before = await made(look, marlstone);
    const n = await rows();
    const after = await made(look, marlstone);
    expect(after).toEqual(before);
    expect(await rows()).toBe(n);
    expect(before.size).toBe(before.bytes.length);
  });
  test('is another for each editor: the card’s has the points that it takes, and says how far it is off', async () => {
    const forCamera = await made(look, camera);
    const forEditor = await made(look, marlstone);
    expect(forCamera.id).not.toBe(forEditor.id);
    expect(readCube(forCamera.bytes).size).toBe(forCamera.points);
    expect(forCamera.points).toBe(33);
    expect(must(forCamera.residual).maxDeltaE).toBeGreaterThanOrEqual(must(forCamera.residual).p95DeltaE);
  });
  test('names the cameras that its item is for, where the format has a place; read again, they bind the item', async () => {
    await applyBulk(people.librarian, { items: [lookItem], set: { cameras: ['Perrin Alder'] } });
    const { bytes } = await made(look, marlstone);
    const { facts } = recognise('x.mlook', bytes, [must(marlstone)]);
    expect(facts).toMatchObject({ fileScope: { cameras: ['Perrin Alder'] } });
    const again = await transaction(async (sql) =>
      createItem(sql, actorOf(people.librarian), {
        kind: 'look',
        title: 'Came back',
        headings: [],
        shelfId: shelf,
        supplier: '',
        sha: await putBlob(sql, bytes),
        fileName: 'x.mlook',
        format: 'marlstone@4',
        facts,
        selvedge: null,
        notes: '',
      }),
    );
    expect((await itemFor(people.librarian, again.itemId)).item.cameras).toEqual(['Perrin Alder']);
    await applyBulk(people.librarian, { items: [lookItem], set: { cameras: [] } });
  });
  test('that carries the title follows the item’s; the one before stays as it was', async () => {
    const before = await made(look, marlstone);
    const n = await rows();
    await rename(lookItem, 'Kiln, renamed');
    const after = await made(look, marlstone);
    expect(after.id).not.toBe(before.id);
    expect(after.bytes.equals(before.bytes)).toBe(false);
    expect(await rows()).toBe(n + 1);
    expect(await getBlob(before.sha256)).toEqual(before.bytes);
    await rename(lookItem, must(houseLooks[0]).title);
    expect((await made(look, marlstone)).id).toBe(before.id);
  });
  test('of a file that goes out as it is does not change with the item’s title', async () => {
    const before = await made(preset, oxbow, true);
    await rename(presetItem, 'Another name');
    expect((await made(preset, oxbow, true)).id).toBe(before.id);
    expect(before.bytes.toString()).toBe(oxbowOf(must(oxbowPresets[0])));
  });
  test('that eight ask for at once is one', async () => {
    await pool().query('delete from rendition where version_id = $1', [look]);
    const all = await Promise.all(Array.from({ length: 8 }, () => made(look, oxbow)));
    expect(new Set(all.map((r) => r.id)).size).toBe(1);
  });
  test('of what has no table is refused with what to do', async () => {
    await expect(made(preset, camera)).rejects.toMatchObject({
      code: 'rendition-kind',
      remedy: expect.stringContaining('Convert') as string,
    });
  });
});
