/** One folder, two editors: a file is written once, and each of them is told of as far as it is with it. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import oxbowTable2 from '@/standins/descriptors/oxbow-table-2.json';
import { v7 } from 'uuid';
import { putBlob } from '../blobs/service';
import { pool, transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { foretellFor } from '../gear/foretell';
import { rolloutFor } from '../rollouts/service';
import { confirmRollout } from '../rollouts/confirm';
import { addStation, approvedLook, carryOut, enrolled, planned, report } from '../rollouts/testing/world';
import { listingKey } from './listing-key';
import { changeStation } from './service';
import { stationView } from './views';

withDatabase();

let room = '';
let token = '';
let path = '';
let file = { path: '', size: 0, sha256: '' };
let look = { itemId: '', versionId: '' };

/** A frame without camera data: what the two editors offer for it is asked. */
async function frame(): Promise<string> {
  const id = v7();
  const sha = await transaction((sql) => putBlob(sql, Buffer.from('frame')));
  await pool().query(
    `
      insert into frame (id, name, sha256, width, height, camera, serial, conversion, lens, file_kind)
      values ($1, 'Bowl', $2, 1, 1, 'Perrin Alder', '', '', '', 'rendered')
    `,
    [id, sha],
  );
  return id;
}

const listing = (editor: string, paths: readonly string[]) => {
  const at = new Date(Date.now() + 1000).toISOString();
  const listed = paths.map((one) => ({ path: one, title: 'A look', kind: 'look', headings: [] }));
  return {
    editor: listingKey(room, { editor_id: editor, editor_version: '2' }),
    running: true,
    at,
    text: JSON.stringify({ at, running: true, listed, refused: [] }),
  };
};
/** Both of the editors run, and list the file. */
const bothListIt = () => report(token, [file], [listing('oxbow', [path]), listing('oxbow-table', [path])]);
const rowThere = async () => must((await stationView(people.lead, room)).rows.find((row) => row.path === path));
const stateOf = async (editor: string) => {
  const found = (await stationView(people.lead, room)).editors.find((one) => one.editor === editor);
  return [found?.placed, found?.state];
};

beforeAll(async () => {
  await transaction(async (sql) => {
    for (const descriptor of [oxbow2, oxbowTable2])
      await bringDescriptor(sql, { personId: null, name: 'test' }, descriptor, 'd');
  });
  room = await addStation('Room', 'linux', ['oxbow@2', 'oxbow-table@2']);
  token = await enrolled(room, 'linux');
  await report(token, []);
  look = await approvedLook(0);
});

describe('a folder that two editors read', () => {
  test('gets one file, which serves both', async () => {
    const rollout = await planned({ versions: [look.versionId], stations: [room] });
    const { steps } = await rolloutFor(people.lead, rollout);
    expect(steps.map(({ editor_id, do_what, note }) => [editor_id, do_what, note])).toEqual([
      ['oxbow', 'put', ''],
      ['oxbow-table', 'none', 'the same file serves both editors'],
    ]);
    await confirmRollout(people.librarian, rollout);
    const operations = await carryOut(token);
    expect(operations).toHaveLength(1);
    const [put] = operations;
    path = must(put).path;
    file = { path, size: must(put).size, sha256: must(must(put).sha256) };
    await report(token, [file]);
  });

  test('says of each editor how far it is with the file', async () => {
    await report(token, [file], [listing('oxbow', [path])]);
    expect(await rowThere()).toMatchObject({
      editor: 'Oxbow 2',
      state: 'listed',
      also: [{ editor: 'Oxbow Table 2', state: 'launch-due' }],
    });
    expect([await stateOf('oxbow'), await stateOf('oxbow-table')]).toEqual([
      [1, 'in-step'],
      [1, 'launch-due'],
    ]);
    await bothListIt();
    expect((await rowThere()).also).toEqual([
      { editor: 'Oxbow Table 2', state: 'listed', reason: 'Oxbow Table 2 lists it' },
    ]);
    expect(await stateOf('oxbow-table')).toEqual([1, 'in-step']);
  });

  test('makes the item show in both', async () => {
    const { at } = await foretellFor(people.lead, look.itemId, await frame());
    expect(at.map(({ editor, answer }) => [editor, answer])).toEqual(
      [
        ['oxbow', 'yes'],
        ['oxbow-table', 'yes'],
      ].map(([editor, answer]) => [`${editor}@2`, answer]),
    );
  });

  test('is changed for both where somebody changes it', async () => {
    await report(token, [{ ...file, sha256: 'ab'.repeat(32) }]);
    expect([await stateOf('oxbow'), await stateOf('oxbow-table')]).toEqual([
      [1, 'changed'],
      [1, 'changed'],
    ]);
    await bothListIt();
  });

  test('is looked after for the one that stays, when the other goes', async () => {
    await changeStation(people.librarian, room, { name: 'Room', went: ['oxbow@2'] });
    expect(await rowThere()).toMatchObject({ editor: 'Oxbow Table 2', state: 'listed', also: [] });
    await changeStation(people.librarian, room, { name: 'Room', came: ['oxbow@2'] });
    expect(await rowThere()).toMatchObject({ editor: 'Oxbow Table 2', also: [{ editor: 'Oxbow 2' }] });
  });

  test('is not written in two forms by one plan', async () => {
    const other = structuredClone(oxbowTable2) as unknown as { accepts: { writer: { table?: { size: object } } }[] };
    must(must(other.accepts[0]).writer.table).size = { exact: 17 };
    await transaction((sql) => bringDescriptor(sql, { personId: null, name: 'test' }, other, 'd'));
    const second = await approvedLook(1);
    const rollout = await planned({ versions: [second.versionId], stations: [room] });
    const { steps } = await rolloutFor(people.lead, rollout);
    expect(steps.map(({ do_what, decision }) => [do_what, decision])).toEqual([
      ['put', 'put'],
      ['none', 'not-accepted'],
    ]);
    expect(steps[1]?.note).toContain('takes it in another form');
  });
});
