/** Presets that an editor takes only through its own import: handed off, taken in by a person, proved by what it lists. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import { sheetOf } from '@/core/sheets/sheet';
import { parseDescriptor } from '@/core/editor/descriptor';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import { transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { approve } from '../items/approval';
import { listingKey } from '../stations/service';
import { stationView } from '../stations/views';
import { planRemoval } from './removal';
import { confirmRollout, rolloutFor } from './service';
import { addStation, carryOut, enrolled, item, planned, report } from './testing/world';

withDatabase();

let desk = '';
let token = '';
let path = '';
let content = '';

beforeAll(async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 't' }, marlstone3, 'd'));
  desk = await addStation('Desk', 'macos', ['marlstone@3']);
  token = await enrolled(desk, 'macos');
  const text = '; Marlstone preset\n[marlstone]\nedition=3\nname=Soot\ndrawer=House\n\n[light]\nlevel=20\n';
  const { versionId } = await item('Soot', text, 'soot.mpreset');
  await approve(people.librarian, versionId);
  const rollout = await planned({ versions: [versionId], stations: [desk] });
  await confirmRollout(people.lead, rollout);
  const [put] = await carryOut(token);
  path = must(put).path;
  content = must(must(put).sha256);
});

/** What the agent reports: the file in the tray, and the editor's list. */
const tell = (listed: object[], refused: object[] = [], running = true) =>
  report(
    token,
    [{ path, size: 1, sha256: content }],
    [
      {
        editor: listingKey(desk, { editor_id: 'marlstone', editor_version: '3' }),
        running,
        at: new Date().toISOString(),
        text: JSON.stringify({ at: new Date().toISOString(), running, listed, refused }),
      },
    ],
  );
const state = async () => {
  const { rows, editors } = await stationView(people.retoucher, desk);
  const row = must(rows.find((one) => one.path === path));
  return [row.state, row.reason, editors[0]?.importing];
};
const STEP = 'In Marlstone 3, have it take in what lies in its tray, and confirm it.';
const kept = (more: object) => ({ path: 'x/kept/soot.mpreset', title: 'Soot', kind: 'preset', ...more });

describe('what goes through a hand-off folder', () => {
  test('waits there until a person has the editor take it in, and the steps are said', async () => {
    expect(path).toBe('Marlstone Tray/Soot.mpreset');
    await tell([], [], false);
    expect(await state()).toEqual(['import-due', `Marlstone 3 is not running: start it. ${STEP}`, 1]);
    await tell([{ path: 'x', title: 'Another', kind: 'preset' }]);
    expect(await state()).toEqual(['import-due', STEP, 1]);
  });

  test('is listed once the editor lists its content, wherever it keeps it; an older one of that name is no proof', async () => {
    await tell([kept({ sha256: 'ab'.repeat(32) })]);
    expect((await state())[0]).toBe('import-due');
    await tell([kept({ sha256: content })]);
    expect(await state()).toEqual(['listed', 'Marlstone 3 has taken it in, and lists it', 0]);
    // an editor that tells no contents is believed by the title
    await tell([kept({})]);
    expect((await state())[0]).toBe('listed');
    await tell([kept({ kind: 'look' })]);
    expect((await state())[0]).toBe('import-due');
  });

  test('that the editor refuses is refused, in its own words', async () => {
    await tell([], [{ path, reason: 'a preset of edition 4' }]);
    expect((await state()).slice(0, 2)).toEqual(['refused', 'a preset of edition 4']);
  });

  test('is taken out of the folder, and it is said that the editor keeps its own', async () => {
    const { rollout } = await planRemoval(people.librarian, desk, { paths: [path] });
    const { steps } = await rolloutFor(people.librarian, rollout);
    expect(steps.map(({ note }) => note)).toEqual(['Marlstone 3 keeps what it took in: take it out there too']);
  });

  test('has its steps on a sheet', () => {
    const [sheet] = sheetOf(
      [parseDescriptor(marlstone3)],
      [{ editor: 'marlstone@3', path, does: 'put', over: false, title: 'Soot' }],
      'macos',
    );
    expect(sheet?.after).toEqual(['Start Marlstone 3.', STEP]);
  });

  test('needs a folder of its own', () => {
    const accepts = marlstone3.accepts.map((one) => (one.kind === 'preset' ? { ...one, headings: 'folder' } : one));
    expect(() => parseDescriptor({ ...marlstone3, accepts })).toThrow(/is a hand-off folder/);
  });
});
