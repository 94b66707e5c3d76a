/** A station without an agent: its sheet, its files, what people say that they have done, and what is planned after that. */
import { unzipSync } from 'fflate';
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import { houseLooks } from '@/demo/designs';
import { cubeOf } from '@/demo/files';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import tessel7 from '@/standins/descriptors/tessel-7.json';
import { transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { approve } from '../items/approval';
import { confirmEncoding } from '../items/encoding';
import { versionOf } from '../items/testing/item-of';
import { stationView } from '../stations/views';
import { noteByHand } from './by-hand';
import { confirmRollout, rolloutFor, undoRollout } from './service';
import { filesZip, sheetFor } from './sheet';
import { addStation, approvedLook, enrolled, planned, srgb } from './testing/world';

withDatabase();

let guest = '';
let look = { itemId: '', versionId: '' };
beforeAll(async () => {
  await transaction(async (sql) => {
    for (const descriptor of [marlstone4, oxbow2, tessel7])
      await bringDescriptor(sql, { personId: null, name: 't' }, descriptor, 'd');
  });
  look = await approvedLook(0);
  guest = await addStation('Guest', 'windows', ['marlstone@4', 'oxbow@2', 'tessel@7']);
});

const stateOf = async (path: string) =>
  must((await stationView(people.retoucher, guest)).rows.find((row) => row.path === path));
const MARLSTONE = 'AppData/Roaming/.marlstone-4/looks/';

describe('a station that is kept by hand', () => {
  let rollout = '';
  let path = '';

  test('has a sheet with its paths, and its files as a zip', async () => {
    rollout = await planned({ versions: [look.versionId], stations: [guest] });
    const sheet = await sheetFor(people.retoucher, rollout, guest);
    expect([sheet.byHand, sheet.waiting]).toEqual([true, 2]);
    expect(sheet.editors.map(({ title, folders }) => [title, folders[0]?.folder])).toEqual([
      ['Marlstone 4', '%APPDATA%\\.marlstone-4\\looks'],
      ['Oxbow 2', '%USERPROFILE%\\Oxbow\\Looks\\House'],
    ]);
    const { steps } = await rolloutFor(people.librarian, rollout);
    expect(steps.find((step) => step.editor_id === 'tessel')).toMatchObject({
      do_what: 'none',
      note: 'Tessel 7 keeps it inside one file of its own, which only an agent writes, and none is at Guest',
    });
    const names = Object.keys(unzipSync((await filesZip(people.retoucher, rollout, guest)).bytes));
    path = must(names.find((name) => name.startsWith(MARLSTONE)));
    expect(names).toHaveLength(2);
    await expect(sheetFor(people.retoucher, rollout, look.itemId)).rejects.toMatchObject({ code: 'not-found' });
  });

  test('is in step once somebody says so', async () => {
    const note = () => noteByHand(people.librarian, rollout, { station: guest });
    await expect(note()).rejects.toMatchObject({ code: 'rollout-settled' });
    await confirmRollout(people.lead, rollout);
    expect(await note()).toEqual({ done: 2 });
    const { steps, rollout: now } = await rolloutFor(people.librarian, rollout);
    expect(steps.map(({ outcome, message }) => [outcome, message])).toEqual([
      ['done', `done by hand, as ${people.librarian.name} says`],
      ['done', `done by hand, as ${people.librarian.name} says`],
      [null, ''],
    ]);
    expect(now.status).toBe('done');
    expect(await stateOf(path)).toMatchObject({ decision: 'in-step', state: 'by-hand' });
    await expect(note()).rejects.toMatchObject({ code: 'rollout-settled' });
  });

  test('gets a newer version in the place of the one that was put there', async () => {
    const newer = await versionOf(look.itemId, cubeOf(must(houseLooks[3]), 9), 'x.cube');
    await confirmEncoding(people.librarian, newer, srgb);
    await approve(people.librarian, newer);
    const next = await planned({ versions: [newer], stations: [guest] });
    const { steps } = await rolloutFor(people.librarian, next);
    const own = must(steps.find((step) => step.path === path));
    expect([own.do_what, own.decision]).toEqual(['put', 'put']);
    await confirmRollout(people.lead, next);
    expect(await noteByHand(people.lead, next, { station: guest })).toEqual({ done: 2 });
    expect((await sheetFor(people.lead, next, guest)).editors[0]?.folders[0]?.put[0]?.over).toBe(true);
    expect((await stateOf(path)).number).toBe(2);
  });

  test('is undone by hand too, and one with an agent is not', async () => {
    const own = await approvedLook(1);
    const here = await planned({ versions: [own.versionId], stations: [guest] });
    await confirmRollout(people.lead, here);
    await noteByHand(people.lead, here, { station: guest });
    const desk = await addStation('Desk', 'linux', ['oxbow@2']);
    await enrolled(desk, 'linux');
    const there = await planned({ versions: [own.versionId], stations: [desk] });
    await confirmRollout(people.lead, there);
    await expect(noteByHand(people.lead, there, { station: desk })).rejects.toMatchObject({ code: 'agent-there' });
    expect((await sheetFor(people.lead, there, desk)).byHand).toBe(false);
    await expect(noteByHand(people.retoucher, there, { station: desk })).rejects.toMatchObject({
      code: 'not-allowed',
    });
    const undo = await undoRollout(people.lead, here);
    expect((await sheetFor(people.lead, undo, guest)).editors[0]?.folders[0]?.remove).toHaveLength(1);
    await noteByHand(people.lead, undo, { station: guest });
    expect((await rolloutFor(people.lead, here)).rollout.status).toBe('undone');
  });
});
