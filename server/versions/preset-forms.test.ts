/** Presets written for editors, from the database to the file that is read again. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import { oxbowPreset } from '@/core/preset/testing';
import { readPreset } from '@/core/recognise';
import { cubeOf } from '@/demo/files';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import perrinAlder1 from '@/standins/descriptors/perrin-alder-1.json';
import { getBlob } from '../blobs/service';
import { people, withDatabase } from '../db/testing/database';
import { transaction } from '../db/pool';
import { bringDescriptor, descriptors } from '../editors/service';
import { itemFor, lineageOf, versionFor } from '../items/service';
import { itemOf } from '../items/testing/item-of';
import { referencesOf } from '../references/service';
import { addShelf } from '../shelves/service';
import { convertToPreset, makeCompanion, presetLanguages, previewPreset } from './preset-forms';

withDatabase();
let shelf = '';
beforeAll(async () => {
  for (const descriptor of [oxbow2, marlstone3, marlstone4, perrinAlder1])
    await transaction((sql) => bringDescriptor(sql, { personId: null, name: 'test' }, descriptor, 'd'));
  shelf = await addShelf(people.librarian, { name: 'Test' });
});

const oxbow = (title: string, steps: string) =>
  itemOf(oxbowPreset(steps, { title, headings: ['Autumn'] }), `${title}.xmp`, { shelfId: shelf });
/** What a version's file says when it is read again. */
async function readAgain(versionId: string) {
  const version = await versionFor(people.librarian, versionId);
  return readPreset(version.file_name, new Uint8Array(await getBlob(version.sha256)), await descriptors());
}

test('editors that give an empty preset are offered, and which of them can call a look', async () => {
  expect(await presetLanguages(people.retoucher)).toEqual([
    { id: 'marlstone@3', title: 'Marlstone 3', calls: false },
    { id: 'marlstone@4', title: 'Marlstone 4', calls: false },
    { id: 'oxbow@2', title: 'Oxbow 2', calls: true },
  ]);
});

describe('a preset in another language', () => {
  const steps =
    '<rdf:li run:step="lamp" run:stops="0.5"/><rdf:li run:step="edge" run:relief="0.2"/><rdf:li run:step="petal" run:at="40" run:span="80" run:rich="20"/>';
  test('is told setting by setting before it is written', async () => {
    const { versionId } = await oxbow('Side Light', steps);
    const plan = await previewPreset(people.lead, versionId, 'marlstone@4');
    expect(plan).toMatchObject({
      editor: 'Marlstone 4',
      carried: [{ setting: 'level', title: 'Level' }],
      approximated: [{ setting: 'hueSectors', title: 'Hue sectors' }],
      left: [{ setting: 'localContrast', reason: 'Marlstone 4 has no such setting' }],
    });
    expect(plan.approximated[0]?.figure).toBeGreaterThan(0);
    expect(plan.rendering.maxDeltaE).toBe(plan.approximated[0]?.figure);
  });
  test('becomes a form of its item, a draft that knows its source, and reads as was told', async () => {
    const { itemId, versionId } = await oxbow('Front Light', steps);
    const made = await convertToPreset(people.librarian, versionId, { to: 'marlstone@4' });
    expect(made.itemId).toBe(itemId);
    const found = await itemFor(people.librarian, itemId);
    expect(found.newest.id).toBe(versionId);
    expect(found.forms.map(({ variant }) => variant)).toEqual(['', 'Marlstone 4']);
    const form = must(found.forms[1]);
    expect(form).toMatchObject({
      id: made.versionId,
      status: 'draft',
      format: 'marlstone@4',
      file_name: 'Front Light.msteps',
    });
    const again = await readAgain(made.versionId);
    expect(again.title).toBe('Front Light');
    expect(again.headings).toEqual(['Autumn']);
    expect(again.read.settings.level).toBe(0.5);
    const { sources } = await lineageOf(people.librarian, { ...found, newest: form });
    expect(sources[0]).toMatchObject({ recipe: { tool: 'preset', to: 'marlstone@4', carried: ['level'] } });
  });
  test('is refused where it would be the same, or nothing at all, or of no editor, and of those who may not', async () => {
    const { versionId } = await oxbow('Foot Light', '<rdf:li run:step="origin" run:profile="Alder Standard"/>');
    const to = (editor: string, who = people.librarian) => convertToPreset(who, versionId, { to: editor });
    await expect(to('oxbow@2')).rejects.toMatchObject({ code: 'convert-same' });
    await expect(to('marlstone@4')).rejects.toMatchObject({ code: 'convert-empty' });
    await expect(to('perrin-alder@1')).rejects.toMatchObject({ code: 'editor-presets' });
    await expect(to('nobody@1')).rejects.toMatchObject({ code: 'editor-unknown' });
    await expect(to('marlstone@4', people.retoucher)).rejects.toMatchObject({ code: 'not-allowed' });
  });
});

describe('a companion', () => {
  const look = (title: string, level: number) =>
    itemOf(cubeOf({ title, headings: [], settings: { level } }, 9), `${title}.cube`, { title, shelfId: shelf });
  test('calls the look at its strength and touches nothing else, whatever else bears the title', async () => {
    await look('Gauze', 1);
    const { itemId, versionId } = await look('Gauze', 0.5);
    const made = await makeCompanion(people.librarian, versionId, { to: 'oxbow@2', title: 'With gauze', strength: 60 });
    expect(made.itemId).not.toBe(itemId);
    const again = await readAgain(made.versionId);
    expect(again.title).toBe('With gauze');
    expect(again.read.settings).toEqual({ look: { name: 'Gauze', strength: 60 } });
    expect(await referencesOf(people.retoucher, made.versionId)).toMatchObject([
      { state: 'bound', item: { id: itemId } },
    ]);
  });
  test('is refused for an editor whose presets call no looks, and of what is no look', async () => {
    const { versionId } = await look('Tulle', 0.5);
    const asked = { title: 'With tulle', strength: 100 };
    await expect(makeCompanion(people.librarian, versionId, { to: 'marlstone@4', ...asked })).rejects.toMatchObject({
      code: 'companion-language',
    });
    const preset = await oxbow('No look', '<rdf:li run:step="lamp" run:stops="0.5"/>');
    await expect(makeCompanion(people.librarian, preset.versionId, { to: 'oxbow@2', ...asked })).rejects.toMatchObject({
      code: 'convert-kind',
    });
  });
});
