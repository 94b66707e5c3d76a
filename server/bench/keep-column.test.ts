/** Columns of the bench kept as looks, against the database. */
import { beforeAll, expect, test } from 'vitest';
import { must } from '@/core/must';
import { oxbowPreset } from '@/core/preset/testing';
import { readAnyLook } from '@/core/icc/look';
import { sampler } from '@/core/look/sample';
import { cubeOf } from '@/demo/files';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { getBlob } from '../blobs/service';
import { planConversion } from '../conversions/planning';
import { runConversion } from '../conversions/running';
import { conversionFor, moveConversion, planAgainOf } from '../conversions/service';
import { pool, transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { itemFor, lineageOf } from '../items/service';
import { itemOf, versionOf } from '../items/testing/item-of';
import { runJob } from '../jobs/service';
import { addLicence } from '../licences/service';
import { addShelf } from '../shelves/service';
import { tableOfProgram } from '@/core/look/program';
import { keepColumn } from './keep-column';

withDatabase();
let shelf = '';
let look = '';
let lookItem = '';
let preset = '';
beforeAll(async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 'test' }, oxbow2, 'd'));
  shelf = await addShelf(people.librarian, { name: 'Columns' });
  const cube = cubeOf({ title: 'Warm', headings: [], settings: { warmth: 20 } }, 17);
  ({ versionId: look, itemId: lookItem } = await itemOf(cube, 'Warm.cube', { shelfId: shelf }));
  const text = oxbowPreset('<rdf:li run:step="lamp" run:stops="0.5"/>', { title: 'Lamp' });
  ({ versionId: preset } = await itemOf(text, 'Lamp.xmp', { shelfId: shelf }));
});

const layer = (version: string, strength = 100) => ({ version, strength, assumed: null });
const trim = { slope: [1.1, 1, 1], offset: [0, 0, 0], power: [1, 1, 1] };

test('a preset under a look, with a trim, becomes a draft that knows both, and does what they do', async () => {
  const made = await keepColumn(people.librarian, {
    title: 'Warm Lamp',
    size: 33,
    layers: [layer(preset), layer(look, 50)],
    trim,
    left: ['range compression'],
  });
  expect(made.error.meanDeltaE).toBeGreaterThan(0);
  const found = await itemFor(people.librarian, made.itemId);
  expect(found.newest).toMatchObject({ status: 'draft', format: 'cube' });
  expect(found.newest.notes).toContain('Warm at 50 %');
  const { sources } = await lineageOf(people.librarian, found);
  expect(sources.map(({ title }) => title).sort()).toEqual(['Lamp', 'Warm']);
  expect(sources[0]?.recipe).toMatchObject({ tool: 'column', size: 33, trim, left: ['range compression'] });
  const table = tableOfProgram(await readAnyLook(new Uint8Array(await getBlob(found.newest.sha256))));
  const out = new Float64Array(3);
  sampler(table)(0.3, 0.3, 0.3, out, 0);
  const [red = 0, green = 0, blue = 0] = out;
  // half a stop more light, and a warmer red that is trimmed up
  expect(green).toBeGreaterThan(0.33);
  expect(red).toBeGreaterThan(blue);
});

test('a look alone at full strength stays as it is', async () => {
  const made = await keepColumn(people.lead, { title: 'Same', size: 17, layers: [layer(look)] });
  expect(made.error.maxDeltaE).toBeLessThan(0.01);
});

test('what cannot be is refused, with what to do', async () => {
  const keep = (body: object) => keepColumn(people.librarian, { title: 'X', layers: [layer(look)], ...body } as never);
  await expect(keep({ layers: [] })).rejects.toMatchObject({ code: 'column-empty' });
  await expect(keep({ title: ' ' })).rejects.toMatchObject({ code: 'input-invalid' });
  await expect(keep({ layers: [layer(look, 900)] })).rejects.toMatchObject({ code: 'input-invalid' });
  await expect(keep({ layers: [{ ...layer(look), assumed: 'a dream' }] })).rejects.toMatchObject({ code: 'reading' });
  await expect(keepColumn(people.retoucher, { title: 'X', layers: [layer(look)] })).rejects.toMatchObject({
    code: 'not-allowed',
  });
  const licenceId = await addLicence(people.librarian, { name: 'No', may_convert: 'no', may_spread: 'no' });
  await pool().query('update item set licence_id = $2 where id = $1', [lookItem, licenceId]);
  await expect(keep({})).rejects.toMatchObject({ code: 'licence-forbids' });
});

test('is made again once, of all layers as they are now, when one of them has become newer', async () => {
  const text = (stops: string) => oxbowPreset(`<rdf:li run:step="lamp" run:stops="${stops}"/>`, { title: 'Torch' });
  const under = await itemOf(text('0.2'), 'Torch.xmp', { shelfId: shelf });
  const cube = (warmth: number) => cubeOf({ title: 'Glow', headings: [], settings: { warmth } }, 17);
  const over = await itemOf(cube(10), 'Glow.cube', { shelfId: shelf });
  const made = await keepColumn(people.librarian, {
    title: 'Torch Glow',
    size: 17,
    layers: [layer(under.versionId), layer(over.versionId, 80)],
  });
  const preset2 = await versionOf(under.itemId, text('0.9'), 'Torch.xmp');
  const look2 = await versionOf(over.itemId, cube(40), 'Glow.cube');
  const again = await planAgainOf(people.librarian, { items: [made.itemId] });
  const run = async () =>
    runJob(must((await conversionFor(people.librarian, again)).conversion.job_id), {
      'conversion-plan': planConversion,
      conversion: runConversion,
    });
  await run();
  const { rows } = await conversionFor(people.librarian, again);
  expect(rows).toHaveLength(1);
  expect(must(rows[0]).outcome).toMatchObject({
    said: '2 layers as a table of 17 points',
    changes: { settings: [{ setting: 'level', before: 0.2, after: 0.9 }] },
  });
  expect(must(must(rows[0]).outcome?.changes?.color).mean).toBeGreaterThan(1);
  await moveConversion(people.librarian, again, { verb: 'start' });
  await run();
  const found = await itemFor(people.librarian, made.itemId);
  expect(found.newest).toMatchObject({ number: 2, status: 'draft' });
  const { sources } = await lineageOf(people.librarian, found);
  expect(sources.map(({ version_id }) => version_id).sort()).toEqual([preset2, look2].sort());
  await expect(planAgainOf(people.librarian, { items: [made.itemId] })).rejects.toMatchObject({
    code: 'convert-fresh',
  });
});
