/** Forms of one design at one editor: each has its own file, and its own history there. */
import { beforeAll, expect, test } from 'vitest';
import { must } from '@/core/must';
import { houseLooks } from '@/demo/designs';
import { cubeOf } from '@/demo/files';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { putBlob } from '../blobs/service';
import { pool, transaction } from '../db/pool';
import { many } from '../db/query';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { addVersion } from '../items/create';
import { confirmEncoding } from '../items/encoding';
import { approve } from '../items/approval';
import { actorOf } from '../people/roles';
import { listingKey } from '../stations/service';
import { fleet } from '../stations/fleet';
import { stationView } from '../stations/views';
import { confirmRollout, undoRollout } from './service';
import { addStation, approvedLook, carryOut, enrolled, planned, report, srgb } from './testing/world';

withDatabase();
let desk = '';
let token = '';
let itemId = '';
let plain = '';
let rendered = '';
/** Each list of the editor is newer than the one before. */
let minutes = 0;

/** Another version of the item, approved. */
async function version(n: number, variant: string): Promise<string> {
  const bytes = Buffer.from(cubeOf(must(houseLooks[n]), 7));
  const id = await transaction(async (sql) =>
    addVersion(sql, actorOf(people.librarian), itemId, {
      kind: 'look',
      sha: await putBlob(sql, bytes),
      fileName: 'y.cube',
      format: 'cube',
      facts: { size: 7 },
      selvedge: null,
      notes: '',
      variant,
    }),
  );
  await confirmEncoding(people.librarian, id, srgb);
  await approve(people.librarian, id);
  return id;
}

beforeAll(async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 't' }, oxbow2, 'd'));
  desk = await addStation('Desk', 'linux', ['oxbow@2']);
  token = await enrolled(desk, 'linux');
  await report(token, []);
  ({ itemId, versionId: plain } = await approvedLook(0));
  rendered = await version(1, 'for rendered files');
});

/** Plans, confirms and carries out; then the files that the agent reports. */
async function rollOut(versions: string[]): Promise<string[]> {
  const id = await planned({ versions, stations: [desk] });
  await confirmRollout(people.librarian, id);
  const operations = await carryOut(token);
  const placed = await many<{ path: string; sha: string }>(
    pool(),
    `select path, encode(sha256, 'hex') as sha from placement order by path`,
  );
  await report(
    token,
    placed.map(({ path, sha }) => ({ path, size: 1, sha256: sha })),
  );
  return operations.map(({ path }) => path.split('/').pop() ?? '').sort();
}

test('they lie beside one another, and the name says which is which', async () => {
  const { title } = must(houseLooks[0]);
  expect(await rollOut([plain, rendered])).toEqual([`${title} for rendered files.cube`, `${title}.cube`]);
});

test('a newer version takes the place of its own form alone', async () => {
  const { title } = must(houseLooks[0]);
  const newer = await version(2, 'for rendered files');
  expect(await rollOut([newer])).toEqual([`${title} for rendered files.cube`]);
  const placed = await many<{ version_id: string }>(pool(), 'select version_id from placement order by path');
  expect(placed.map((one) => one.version_id)).toEqual([newer, plain]);
});

/** The agent reports what was placed, and that the editor, which runs, lists it and whatever else is named. */
async function editorLists(others: readonly string[] = []): Promise<void> {
  const placed = await many<{ path: string; sha: string }>(
    pool(),
    `select path, encode(sha256, 'hex') as sha from placement order by path`,
  );
  const at = new Date(Date.now() + 60_000 * ++minutes).toISOString();
  const listed = [...placed.map(({ path }) => path), ...others].map((path) => ({ path, title: path, kind: 'look' }));
  const text = JSON.stringify({ at, running: true, listed, refused: [] });
  await report(
    token,
    placed.map(({ path, sha }) => ({ path, size: 1, sha256: sha })),
    [{ editor: listingKey(desk, { editor_id: 'oxbow', editor_version: '2' }), text, running: true, at }],
  );
}

test('what has a newer approved version is told at its station: an update is due', async () => {
  const lists = async () => {
    await editorLists();
    const { rows, editors } = await stationView(people.librarian, desk);
    return [rows.map(({ state }) => state), editors.map(({ state, updates }) => [state, updates])];
  };
  expect(await lists()).toEqual([['listed', 'listed'], [['in-step', 0]]]);
  const newer = await version(3, '');
  expect(await lists()).toEqual([['listed', 'update-due'], [['update-due', 1]]]);
  await rollOut([newer]);
  expect(await lists()).toEqual([['listed', 'listed'], [['in-step', 0]]]);
});

test('what was taken away is not in step while its editor still lists it', async () => {
  const { versionId } = await approvedLook(5);
  const id = await planned({ versions: [versionId], stations: [desk] });
  await confirmRollout(people.librarian, id);
  const { path } = must((await carryOut(token))[0]);
  await editorLists();
  await undoRollout(people.librarian, id);
  await carryOut(token);

  await editorLists([path]);
  const told = async () => {
    const one = await stationView(people.librarian, desk);
    const [inFleet] = (await fleet(people.librarian)).stations;
    const row = one.rows.find((each) => each.path === path);
    return [
      row?.decision,
      row?.state,
      ...[one, inFleet].map((view) => [view?.editors[0]?.state, view?.editors[0]?.waiting]),
    ];
  };
  expect(await told()).toEqual(['taken-away', 'rescan-due', ['rescan-due', 1], ['rescan-due', 1]]);
  await editorLists();
  expect(await told()).toEqual([undefined, undefined, ['in-step', 0], ['in-step', 0]]);
});
