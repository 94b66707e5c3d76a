/** Camera profiles and lens databases at stations: each in the form and the folder that its editor asks, for bodies used there. */
import { beforeAll, describe, expect, test } from 'vitest';
import { deriveProfile } from '@/core/camera/derived';
import { writeDcp } from '@/core/camera/dcp';
import { must } from '@/core/must';
import { cameras } from '@/demo/cameras/cameras';
import { lensDatabase } from '@/demo/cameras/gear';
import { profileFor } from '@/demo/cameras/profiles';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import tessel7 from '@/standins/descriptors/tessel-7.json';
import { transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { keepGear } from '../gear/service';
import { approve } from '../items/approval';
import { itemOf } from '../items/testing/item-of';
import { addShelf } from '../shelves/service';
import { cameraChoices, changeCameras } from '../stations/cameras-there';
import { sayCameraUsed } from './camera-used';
import { rolloutFor } from './service';
import { addStation, planned, work } from './testing/world';

withDatabase();

const bodies = { plain: 'Perrin Alder', infrared: 'Perrin Alder, infrared' } as const;
type Body = keyof typeof bodies;
const gear: Record<Body, string> = { plain: '', infrared: '' };
const profile: Record<Body, string> = { plain: '', infrared: '' };
let icc = '';
let lenses = '';
let shelf = '';
let desk = '';
let room = '';

async function approved(content: string | Uint8Array, name: string, said: { title: string; cameras?: string[] }) {
  const { versionId } = await itemOf(content, name, { ...said, headings: ['Perrin'], shelfId: shelf });
  await approve(people.librarian, versionId);
  return versionId;
}

const dcpOf = (body: Body): Uint8Array =>
  writeDcp(profileFor(must(cameras.find(({ converted }) => !!converted === (body === 'infrared'))), null, 'x'));

beforeAll(async () => {
  await transaction(async (sql) => {
    for (const descriptor of [oxbow2, marlstone4, tessel7])
      await bringDescriptor(sql, { personId: null, name: 't' }, descriptor, 'd');
  });
  shelf = await addShelf(people.librarian, { name: 'Profiles' });
  for (const body of ['plain', 'infrared'] as const) {
    const conversion = body === 'infrared' ? 'infrared' : '';
    const camera = { maker: 'Perrin', model: 'Perrin Alder', conversion, mount: 'Alder' };
    gear[body] = (await keepGear(people.librarian, 'camera', null, camera)).id;
    profile[body] = await approved(dcpOf(body), 'x.dcp', { title: `Standard ${body}`, cameras: [bodies[body]] });
  }
  const asked = { form: 'icc-input', title: 'Standard', kelvin: 5000, neutral: null, points: 9, camera: '' };
  const { bytes } = await deriveProfile(dcpOf('plain'), { ...asked, created: new Date(0) });
  icc = await approved(bytes, 'x.icc', { title: 'Standard for Marlstone', cameras: [bodies.plain] });
  lenses = await approved(lensDatabase(), 'Saltmarsh.xml', { title: 'Saltmarsh' });
  desk = await addStation('Desk', 'windows', ['oxbow@2', 'marlstone@4', 'tessel@7']);
  room = await addStation('Room', 'linux', ['oxbow@2']);
});

const stepsOf = async (rollout: string) => (await rolloutFor(people.librarian, rollout)).steps;
const says = async (versions: string[], stations: string[]) =>
  (await stepsOf(await planned({ versions, stations }))).map(({ editor_id, decision, path }) => [
    editor_id,
    decision,
    path,
  ]);

test('a profile goes into the folder of its body, where its form is read', async () => {
  expect(await says([profile.infrared], [desk])).toEqual([
    ['marlstone', 'not-accepted', ''],
    ['oxbow', 'put', 'Oxbow/Profiles/Perrin Alder, infrared/Standard infrared.dcp'],
    ['tessel', 'not-accepted', ''],
  ]);
  expect(await says([icc], [desk])).toEqual([
    ['marlstone', 'put', 'AppData/Roaming/.marlstone-4/profiles/Perrin Alder/Standard for Marlstone.icc'],
    ['oxbow', 'not-accepted', ''],
    ['tessel', 'not-accepted', ''],
  ]);
});

test('a lens database goes to each editor that reads them, byte for byte', async () => {
  const rollout = await planned({ versions: [lenses], stations: [desk] });
  const steps = (await stepsOf(rollout)).filter(({ decision }) => decision === 'put');
  expect(steps.map(({ path }) => path)).toEqual([
    'Oxbow/Lenses/Saltmarsh.xml',
    'AppData/Roaming/Tessel/Lenses/Saltmarsh.xml',
  ]);
  expect(new Set(steps.map(({ size }) => size))).toEqual(new Set([Buffer.byteLength(lensDatabase())]));
});

describe('where cameras are named that are used at a station', () => {
  beforeAll(() => changeCameras(people.librarian, room, { came: [gear.plain], went: [] }));

  test('profiles of others are left out, with the reason; those of its own go', async () => {
    const rollout = await planned({ versions: [profile.plain, profile.infrared], stations: [room] });
    const steps = await stepsOf(rollout);
    expect(steps.map(({ decision, do_what }) => [decision, do_what])).toEqual([
      ['put', 'put'],
      ['camera-unused', 'none'],
    ]);
    expect(must(steps[1]).note).toBe('Perrin Alder, infrared is not used at Room: it is left out');
  });

  test('a word that it is used there brings it in, and stays', async () => {
    const rollout = await planned({ versions: [profile.infrared], stations: [room] });
    await sayCameraUsed(people.lead, rollout, { station: room });
    await work(rollout);
    expect((await stepsOf(rollout)).map(({ decision }) => decision)).toEqual(['put']);
    const choices = await cameraChoices(people.retoucher, room);
    expect(choices.map(({ name, used }) => [name, used])).toEqual([
      ['Perrin Alder', true],
      ['Perrin Alder, infrared', true],
    ]);
    await expect(sayCameraUsed(people.lead, rollout, { station: room })).rejects.toMatchObject({
      code: 'rollout-settled',
    });
  });

  test('what is for a camera that the studio does not list is told so', async () => {
    const other = await approved(dcpOf('plain'), 'y.dcp', { title: 'Ondine', cameras: ['Ondine 40'] });
    const rollout = await planned({ versions: [other], stations: [room] });
    await expect(sayCameraUsed(people.lead, rollout, { station: room })).rejects.toMatchObject({
      code: 'camera-unlisted',
      message: 'The studio’s list of cameras has no Ondine 40.',
    });
  });

  test('two who change them at once lose nothing; nobody but the librarian does', async () => {
    await Promise.all([
      changeCameras(people.librarian, room, { came: [], went: [gear.infrared] }),
      changeCameras(people.librarian, room, { came: [gear.plain], went: [] }),
    ]);
    expect((await cameraChoices(people.lead, room)).map(({ used }) => used)).toEqual([true, false]);
    await expect(changeCameras(people.retoucher, room, { came: [], went: [] })).rejects.toMatchObject({
      code: 'not-allowed',
    });
    await expect(
      changeCameras(people.librarian, room, { came: ['0190a000-0000-7000-8000-000000000000'], went: [] }),
    ).rejects.toMatchObject({ code: 'not-found' });
  });
});
