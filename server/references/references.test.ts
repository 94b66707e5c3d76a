/** What presets refer to by name: bound, asked, kept, and rendered with. */
import { beforeAll, describe, expect, test } from 'vitest';
import { oxbowPreset } from '@/core/preset/testing';
import { readPreset } from '@/core/recognise';
import type { Settings } from '@/core/preset/kinds';
import { cubeOf } from '@/demo/files';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { getBlob } from '../blobs/service';
import { people, withDatabase } from '../db/testing/database';
import { transaction } from '../db/pool';
import { bringDescriptor, descriptors } from '../editors/service';
import { candidatesFor } from '../bench/service';
import { mergeItems } from '../copies/service';
import { editItem } from '../items/edit';
import { itemFor, renderingFor, smallerLook, versionFor } from '../items/service';
import { itemOf } from '../items/testing/item-of';
import { doubleEffects, type StepRow } from '../rollouts/service';
import { addShelf } from '../shelves/service';
import { convertPreset, previewConversion } from '../versions/convert';
import { referringPresets, renameInPresets } from './rename';
import { bindReference, referencesOf } from './service';

withDatabase();
let shelf = '';
beforeAll(async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 'test' }, oxbow2, 'd'));
  shelf = await addShelf(people.librarian, { name: 'Test' });
});

const look = (title: string, settings: Settings, supplier = '') =>
  itemOf(cubeOf({ title, headings: [], settings }, 9), `${title}.cube`, { title, shelfId: shelf, supplier });
/** A preset that calls a look by name at 40 %. */
const calling = (name: string, title: string, steps = '') =>
  itemOf(
    oxbowPreset(`${steps}<rdf:li run:step="table" run:name="${name}" run:share="0.4"/>`, { title }),
    `${title}.xmp`,
    {
      shelfId: shelf,
    },
  );
const only = async (versionId: string) => (await referencesOf(people.retoucher, versionId))[0];
const shown = async (versionId: string) => {
  const made = await (await renderingFor(people.retoucher, versionId, 0, '')).make();
  if (made.kind !== 'preset') throw new Error('a preset is rendered by its settings');
  return made.preset;
};
const rename = async (id: string, title: string) => {
  const { item } = await itemFor(people.librarian, id);
  await editItem(people.librarian, id, { revision: item.revision, base: { title: item.title }, mine: { title } });
};

describe('a reference', () => {
  test('is bound to the one item of that name, whichever comes first', async () => {
    const { versionId } = await calling('Amber Scrim', 'Late Rehearsal');
    expect(await only(versionId)).toMatchObject({ state: 'missing', name: 'Amber Scrim', item: null });
    const { itemId } = await look('Amber Scrim', { warmth: 30 });
    expect(await only(versionId)).toMatchObject({ state: 'bound', item: { id: itemId, title: 'Amber Scrim' } });
    const later = await calling('amber scrim', 'Later Rehearsal');
    expect(await only(later.versionId)).toMatchObject({ state: 'bound', item: { id: itemId } });
  });
  test('is asked where two items have the name, and what a person says stays, also for a new version', async () => {
    const one = await look('Footbridge', { level: 0.5 }, 'Fathom Color');
    const other = await look('Footbridge', { level: -0.5 }, 'Sable Row');
    const { versionId } = await calling('Footbridge', 'Crossing');
    const asked = await only(versionId);
    expect(asked?.state).toBe('ambiguous');
    expect(asked?.meant.map(({ id }) => id).sort()).toEqual([one.itemId, other.itemId].sort());
    await bindReference(people.librarian, versionId, { kind: 'look', itemId: other.itemId });
    expect(await only(versionId)).toMatchObject({ state: 'bound', item: { id: other.itemId } });
  });
  test('holds on when the item is renamed, and follows it into another that it is merged into', async () => {
    const { itemId, versionId: lookVersion } = await look('Old Lantern', { contrast: 1.2 });
    const { versionId } = await calling('Old Lantern', 'Lantern Light');
    await rename(itemId, 'Lantern, warm');
    expect(await only(versionId)).toMatchObject({ state: 'bound', item: { id: itemId, title: 'Lantern, warm' } });
    expect((await only(versionId))?.versionId).toBe(lookVersion);
    const kept = await look('Lantern, kept', { contrast: 1.2 });
    await mergeItems(people.librarian, { keep: kept.itemId, others: [itemId] });
    expect(await only(versionId)).toMatchObject({ state: 'bound', item: { id: kept.itemId } });
  });
  test('is bound when an item gets the name that is waited for', async () => {
    const { versionId } = await calling('Prompt Corner', 'Prompting');
    const { itemId } = await look('Something else', { level: 0.2 });
    await rename(itemId, 'Prompt Corner');
    expect(await only(versionId)).toMatchObject({ state: 'bound', item: { id: itemId } });
  });
  test('is bound by librarians alone, to an item of its kind alone', async () => {
    const { itemId } = await look('Any', { level: 0.1 });
    const preset = await calling('Nowhere', 'Lost');
    const body = { kind: 'look' as const, itemId };
    await expect(bindReference(people.retoucher, preset.versionId, body)).rejects.toMatchObject({
      code: 'not-allowed',
    });
    await expect(
      bindReference(people.librarian, preset.versionId, { ...body, itemId: preset.itemId }),
    ).rejects.toMatchObject({ code: 'reference-kind' });
    await expect(
      bindReference(people.librarian, preset.versionId, { kind: 'camera-profile', itemId }),
    ).rejects.toMatchObject({ code: 'not-found' });
  });
});

describe('rendering with what is referred to', () => {
  test('a preset is shown by its settings, the look that it calls, and what is not shown', async () => {
    const { versionId: lookVersion } = await look('Deep Wing', { contrast: 1.4 });
    const steps = '<rdf:li run:step="lamp" run:stops="0.5"/><rdf:li run:step="tooth" run:load="0.2"/>';
    const { versionId } = await calling('Deep Wing', 'Wing Light', steps);
    expect(await shown(versionId)).toEqual({
      settings: { level: 0.5 },
      called: { versionId: lookVersion, title: 'Deep Wing', strength: 40 },
      notShown: ['Grain'],
      missing: [],
    });
    const lost = await calling('Never Held', 'Unlit', steps);
    expect(await shown(lost.versionId)).toMatchObject({ called: null, missing: ['Never Held'] });
  });
  test('its table holds the look, and another version of the look makes another table', async () => {
    const { itemId } = await look('Moving', { level: 1 });
    const { versionId } = await calling('Moving', 'Moved');
    const table = async () => (await smallerLook(await versionFor(people.librarian, versionId), 5)).table;
    const before = await table();
    expect(before.some((value, index) => Math.abs(value - (index % 3 === 0 ? value : 0)) > 0)).toBe(true);
    const other = await look('Moving on', { level: -1 });
    await mergeItems(people.librarian, { keep: other.itemId, others: [itemId] });
    expect(await table()).not.toEqual(before);
  });
  test('a look that is made of it holds what it calls, unless that is not chosen', async () => {
    await look('Called In', { chroma: 0 });
    const { versionId } = await calling('Called In', 'Calling', '<rdf:li run:step="lamp" run:stops="0.5"/>');
    const view = await previewConversion(people.librarian, versionId, 17);
    expect(view.carried.map(({ setting }) => setting)).toEqual(['level', 'look']);
    expect(view.left).toEqual([]);
    const made = await convertPreset(people.librarian, { versionId, size: 17, title: 'With it' });
    const without = await convertPreset(people.librarian, {
      versionId,
      size: 17,
      title: 'Without',
      settings: ['level'],
    });
    const tables = [made, without].map(
      async (one) => (await smallerLook(await versionFor(people.librarian, one.versionId))).table,
    );
    expect(await tables[0]).not.toEqual(await tables[1]);
  });
  test('a preset that calls a look that was made of it acts twice, and its roots are those of the look too', async () => {
    const { itemId, versionId } = await calling('Twice', 'Doubled', '<rdf:li run:step="lamp" run:stops="0.5"/>');
    const made = await convertPreset(people.librarian, { versionId, size: 17, title: 'Twice', settings: ['level'] });
    expect(await only(versionId)).toMatchObject({ state: 'bound', item: { id: made.itemId }, twice: true });
    const step = (id: string, title: string, item = '') => ({ version_id: id, title, item_id: item }) as StepRow;
    expect(await doubleEffects([step(versionId, 'Twice'), step(made.versionId, 'Twice', made.itemId)])).toEqual([
      { preset: 'Twice', look: { id: made.itemId, title: 'Twice' }, calls: true },
    ]);
    const [candidate] = await candidatesFor(people.retoucher, [versionId]);
    expect(candidate).toMatchObject({ item_id: itemId, doubled: true, called: 'Twice' });
    expect(candidate?.roots).toContain(made.versionId);
    await look('Once', { level: 0.1 });
    const plain = await calling('Once', 'Single');
    expect((await candidatesFor(people.retoucher, [plain.versionId]))[0]).toMatchObject({ doubled: false });
    expect(await only(plain.versionId)).toMatchObject({ twice: false });
    expect(await doubleEffects([step(plain.versionId, 'Single')])).toEqual([]);
  });
  test('a preset and a look that was made from it act twice where a plan brings both to one editor', async () => {
    const { versionId } = await itemOf(
      oxbowPreset('<rdf:li run:step="lamp" run:stops="0.7"/>', { title: 'Beside' }),
      'b.xmp',
      {
        shelfId: shelf,
      },
    );
    const made = await convertPreset(people.librarian, { versionId, size: 17, title: 'Beside, a look' });
    const at = (editor: string, id: string, title: string, item = '') =>
      ({ version_id: id, title, item_id: item, station_id: 's', editor_id: editor, editor_version: '2' }) as StepRow;
    const look = at('oxbow', made.versionId, 'Beside, a look', made.itemId);
    expect(await doubleEffects([at('oxbow', versionId, 'Beside'), look])).toEqual([
      { preset: 'Beside', look: { id: made.itemId, title: 'Beside, a look' }, calls: false },
    ]);
    expect(await doubleEffects([at('marlstone', versionId, 'Beside'), look])).toEqual([]);
  });
});

describe('a name that editors find an item by', () => {
  test('is told before it changes, and presets that call it are written anew, with all else that is in them', async () => {
    const { itemId } = await look('Gold Leaf', { level: 0.2 });
    const steps = '<rdf:li run:step="lamp" run:stops="0.5" run:odd="kept"/>';
    const { itemId: preset, versionId } = await calling('Gold Leaf', 'Gilded', steps);
    await calling('Another', 'Not Gilded');
    expect(await referringPresets(people.retoucher, itemId)).toEqual([
      { itemId: preset, title: 'Gilded', name: 'Gold Leaf', editor: 'Oxbow 2' },
    ]);
    await rename(itemId, 'Gold Leaf, worn');
    expect(await renameInPresets(people.librarian, itemId)).toEqual({ written: 1, left: [] });
    const { newest } = await itemFor(people.librarian, preset);
    expect(newest).toMatchObject({ number: 2, status: 'draft' });
    const read = readPreset('x.xmp', new Uint8Array(await getBlob(newest.sha256)), await descriptors()).read;
    expect(read.settings).toEqual({ level: 0.5, look: { name: 'Gold Leaf, worn', strength: 40 } });
    expect(read.unknown).toEqual({ 'lamp.odd': 'kept' });
    expect(await only(newest.id)).toMatchObject({ state: 'bound', item: { id: itemId }, name: 'Gold Leaf, worn' });
    expect(await only(versionId)).toMatchObject({ name: 'Gold Leaf' });
    // those that have the name already are left alone
    expect(await renameInPresets(people.librarian, itemId)).toEqual({ written: 0, left: [] });
    await expect(renameInPresets(people.retoucher, itemId)).rejects.toMatchObject({ code: 'not-allowed' });
  });
});
