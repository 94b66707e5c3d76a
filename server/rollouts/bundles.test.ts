/** What goes into a bundle: an entry of its own for each item, compared one by one, and not while its editor runs. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import { readHald } from '@/core/look/hald-file';
import type { InventoryFile } from '@/core/sync/protocol';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import tessel7 from '@/standins/descriptors/tessel-7.json';
import { getBlob } from '../blobs/service';
import { pool, transaction } from '../db/pool';
import { one } from '../db/query';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { approve } from '../items/approval';
import { editItem } from '../items/edit';
import { instructionsFor, listingKey, takeReport } from '../stations/service';
import { stationView } from '../stations/views';
import { leaveOut, moveRollout, planFor, rolloutFor, undoRollout } from './service';
import { addStation, agent, approvedLook, carryOut, enrolled, item, planned, report, sha } from './testing/world';

withDatabase();
const BUNDLE = 'AppData/Roaming/Tessel/tessel.json';
const preset = {
  ramp: {},
  tessel: 7,
  name: 'Proof Table',
  trays: 'Prints',
  shards: [],
  stain: [],
  ink: 'none',
  daylight: { bright: 35 },
};
let station = '';
let token = '';
let room = '';
let roomToken = '';
/** When Tessel last wrote its list: at its launch and when it quits. */
let told = { running: false, at: new Date(Date.now() - 3600e3).toISOString() };

beforeAll(async () => {
  await transaction(async (sql) => {
    for (const descriptor of [oxbow2, tessel7])
      await bringDescriptor(sql, { personId: null, name: 't' }, descriptor, 'd');
  });
  station = await addStation('Print room', 'windows', ['tessel@7', 'oxbow@2']);
  token = await enrolled(station, 'windows');
  room = await addStation('Old room', 'windows', ['tessel@7']);
  roomToken = await enrolled(room, 'windows');
  await says([]);
});

const key = () => listingKey(station, { editor_id: 'tessel', editor_version: '7' });
/** The agent tells what lies there, and what Tessel says of itself. */
const says = (
  files: InventoryFile[],
  running = false,
  listed: { path: string; title: string; kind: string }[] = [],
) => {
  if (told.running !== running) told = { running, at: new Date().toISOString() };
  const { at } = told;
  return report(token, files, [
    { editor: key(), text: JSON.stringify({ at, running, listed, refused: [] }), running, at },
  ]);
};
const confirm = (id: string) => moveRollout(people.librarian, id, { verb: 'confirm' });
const stepsOf = async (id: string) => (await rolloutFor(people.librarian, id)).steps;
const entryOf = async (hash: string | null): Promise<Record<string, unknown>> =>
  JSON.parse((await getBlob(Buffer.from(must(hash), 'hex'))).toString()) as Record<string, unknown>;

describe('what an agent is told', () => {
  test('are the lists, and whose list tells that nothing is written meanwhile', async () => {
    const { places } = await instructionsFor(await agent(token));
    const own = places.filter(({ path }) => path.startsWith(BUNDLE)).sort((a, b) => (a.id > b.id ? -1 : 1));
    expect(own).toEqual([
      {
        id: 'tessel@7/presets',
        path: `${BUNDLE}#presets`,
        quitFirst: { title: 'Tessel 7', listing: 'AppData/Roaming/Tessel/listed.json' },
      },
      {
        id: 'tessel@7/panes',
        path: `${BUNDLE}#panes`,
        quitFirst: { title: 'Tessel 7', listing: 'AppData/Roaming/Tessel/listed.json' },
      },
      {
        id: 'tessel@7/lists',
        path: `${BUNDLE}#chosen`,
        quitFirst: { title: 'Tessel 7', listing: 'AppData/Roaming/Tessel/listed.json' },
      },
    ]);
    expect(places.filter(({ id }) => id.startsWith('oxbow')).every(({ quitFirst }) => !quitFirst)).toBe(true);
  });
});

describe('a look and a preset', () => {
  let versions: string[] = [];
  let lookItem = '';
  let rollout = '';
  const paths = [`${BUNDLE}#panes/Wax Resist`, `${BUNDLE}#presets/Proof Table`];
  let lying: InventoryFile[] = [];

  beforeAll(async () => {
    const look = await approvedLook(0);
    lookItem = look.itemId;
    const { title, revision } = await one<{ title: string; revision: number }>(
      pool(),
      'select title, revision from item where id = $1',
      [lookItem],
    );
    await editItem(people.librarian, lookItem, { revision, base: { title }, mine: { title: 'Wax Resist' } });
    const held = await item('Proof Table', JSON.stringify(preset, null, 3), 'proof.json');
    await approve(people.librarian, held.versionId);
    versions = [look.versionId, held.versionId];
  });

  test('become entries: a Hald image of 25 points in Display P3, and the preset in canonical form', async () => {
    rollout = await planned({ versions, stations: [station] });
    const steps = (await stepsOf(rollout)).filter(({ editor_id }) => editor_id === 'tessel');
    expect(steps.map(({ path, do_what, points }) => [path, do_what, points])).toEqual([
      [paths[0], 'put', 25],
      [paths[1], 'put', null],
    ]);
    const pane = await entryOf(must(steps[0]).sha);
    expect(pane).toMatchObject({ label: 'Wax Resist', trays: ['House'] });
    expect(readHald(Buffer.from(String(pane.hald), 'base64')).size).toBe(25);
    expect(must(steps[0]).residual?.meanDeltaE).toBeLessThan(1);
    expect(must(steps[1]).sha).toBe(
      sha(
        '{"daylight":{"bright":35},"ink":"none","name":"Proof Table","ramp":{},"shards":[],"stain":[],"tessel":7,"trays":"Prints"}',
      ),
    );
    lying = steps.map(({ path, sha: sha256, size }) => ({ path, sha256: must(sha256), size }));
  });

  test('wait while the editor runs, and what goes elsewhere does not', async () => {
    await confirm(rollout);
    await says([], true);
    const plan = must(await planFor(await agent(token)));
    expect(plan.operations.map(({ path }) => path)).toEqual(['Oxbow/Looks/House/Wax Resist.cube']);
    await carryOut(token);
    expect(await planFor(await agent(token))).toBeNull();
    expect((await stepsOf(rollout)).filter(({ held }) => held).map(({ path }) => path)).toEqual(paths);
    const later = await planned({ versions: [(await approvedLook(1)).versionId], stations: [station] });
    await confirm(later);
    expect(must(await planFor(await agent(token))).id).toBe(later);
    await carryOut(token);
  });

  test('go on by themselves once it is quit, and are listed when it is started', async () => {
    await says([]);
    expect(must(await planFor(await agent(token))).operations.map(({ path }) => path)).toEqual(paths);
    await carryOut(token);
    await says(lying);
    const states = async () =>
      (await stationView(people.librarian, station)).rows
        .filter(({ path }) => paths.includes(path))
        .map(({ state }) => state);
    expect(await states()).toEqual(['launch-due', 'launch-due']);
    const listed = paths.map((path) => ({ path, title: 'x', kind: 'look' }));
    await says(lying, true, listed);
    expect(await states()).toEqual(['listed', 'listed']);
  });

  test('that were changed there are left alone; the same under another layout is in step', async () => {
    const [pane] = lying;
    await says([must(pane), { path: must(paths[1]), sha256: sha('edited'), size: 6 }]);
    const again = await planned({ versions, stations: [station] });
    const steps = (await stepsOf(again)).filter(({ editor_id }) => editor_id === 'tessel');
    expect(steps.map(({ decision }) => decision)).toEqual(['in-step', 'changed-there']);
    await moveRollout(people.librarian, again, { verb: 'drop' });
  });

  test('are taken out again by an undo, which waits for the editor too', async () => {
    await says(lying, true);
    const undo = await undoRollout(people.librarian, rollout);
    const waiting = (await stepsOf(undo)).filter(({ held }) => held).map(({ do_what, path }) => [do_what, path]);
    expect(waiting.sort()).toEqual(paths.map((path) => ['remove', path]).sort());
    await carryOut(token);
    await says(lying);
    const written = [...(await carryOut(token)), ...(await carryOut(token))].map(({ path }) => path);
    expect(written).toEqual(expect.arrayContaining(paths));
    expect((await rolloutFor(people.librarian, rollout)).rollout.status).toBe('undone');
  });

  test('are not handed to an agent that is too old to know of bundles, nor planned for it', async () => {
    const early = await planned({ versions, stations: [room] });
    await confirm(early);
    await pool().query(`update station set agent_version = '0.1.0' where id = $1`, [room]);
    expect(await planFor(await agent(roomToken))).toBeNull();
    await leaveOut(people.librarian, early, { station: room });
    await takeReport(await agent(roomToken), {
      agentVersion: '0.1.0',
      files: [],
      digest: sha('[]'),
      listings: [],
      indexes: [],
      waiting: null,
    });
    const id = await planned({ versions, stations: [room] });
    expect((await stepsOf(id)).map(({ do_what, note }) => [do_what, note.includes('knows no bundles')])).toEqual([
      ['none', true],
      ['none', true],
    ]);
  });
});
