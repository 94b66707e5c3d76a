/** What lies twice at a station goes by a plan, and comes back when that is undone. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import type { Operation } from '@/core/sync/protocol';
import { houseLooks } from '@/demo/designs';
import { cubeOf } from '@/demo/files';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { fillEffects, markMeant } from '../copies/service';
import { transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { approve } from '../items/approval';
import { confirmEncoding } from '../items/encoding';
import { stationView } from '../stations/views';
import { duplicatesIn, planWithoutDuplicates } from './duplicates';
import { confirmRollout, rolloutFor, undoRollout } from './service';
import { addStation, carryOut, enrolled, item, planned, report, sha, srgb } from './testing/world';

withDatabase();

let [desk, token] = ['', ''];
const looks: { itemId: string; versionId: string }[] = [];
let placed: Operation[] = [];
const THEIRS = 'Oxbow/Looks/Old/copy of it.cube';

const look = async (title: string, n: number, nudge: number): Promise<void> => {
  const design = must(houseLooks[n]);
  const warmth = Number(design.settings.warmth ?? 0) + nudge;
  const text = cubeOf({ ...design, title, settings: { ...design.settings, warmth } }, 9);
  const made = await item(title, text, `${title}.cube`);
  await confirmEncoding(people.librarian, made.versionId, srgb);
  await approve(people.librarian, made.versionId);
  looks.push(made);
};
/** What the agent tells: what was put, and what somebody has laid beside it. */
const tell = (more: { path: string; size: number; sha256: string }[]) =>
  report(token, [...placed.map(({ path, size, sha256 }) => ({ path, size, sha256: must(sha256) })), ...more]);
const told = async () =>
  (await duplicatesIn(people.retoucher, await stationView(people.retoucher, desk))).map(({ how, keep, others }) => [
    how,
    keep.ours?.title,
    others.map(({ path }) => path),
  ]);
const pathOf = (title: string): string => must(placed.find(({ path }) => path.endsWith(`/${title}.cube`))).path;

beforeAll(async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 't' }, oxbow2, 'd'));
  desk = await addStation('Desk', 'linux', ['oxbow@2']);
  token = await enrolled(desk, 'linux');
  await look('Kaolin', 0, 0);
  await look('Kaolin again', 0, 0.01);
  await look('Other', 2, 0);
  await fillEffects();
  const rollout = await planned({ versions: looks.map(({ versionId }) => versionId), stations: [desk] });
  await confirmRollout(people.lead, rollout);
  placed = await carryOut(token);
});

describe('what lies twice at a station', () => {
  test('is told by its bytes, also where it is theirs, and by its effect', async () => {
    const ours = must(placed.find(({ path }) => path === pathOf('Other')));
    const theirs = { path: THEIRS, size: ours.size, sha256: must(ours.sha256) };
    await tell([theirs, { path: 'Oxbow/Looks/Old/their own.cube', size: 9, sha256: sha('their own') }]);
    expect(await told()).toEqual([
      ['bytes', 'Other', [THEIRS]],
      ['effect', 'Kaolin', [pathOf('Kaolin again')]],
    ]);
  });

  test('goes by one plan for ours and theirs, and undoing it brings both back', async () => {
    const asked = { paths: [THEIRS, pathOf('Kaolin again')] };
    await expect(planWithoutDuplicates(people.retoucher, desk, asked)).rejects.toMatchObject({ code: 'not-allowed' });
    const { rollout } = await planWithoutDuplicates(people.librarian, desk, asked);
    const { steps } = await rolloutFor(people.librarian, rollout);
    expect(steps.map(({ path, do_what, note }) => [path, do_what, note])).toEqual([
      [pathOf('Kaolin again'), 'remove', ''],
      [THEIRS, 'remove', 'is theirs, and the same as a file of ours'],
    ]);
    await confirmRollout(people.lead, rollout);
    expect((await carryOut(token)).map((operation) => [operation.path, operation.do])).toEqual([
      [pathOf('Kaolin again'), 'remove'],
      [THEIRS, 'remove'],
    ]);
    const undo = await undoRollout(people.lead, rollout);
    const back = await carryOut(token);
    expect(back.map((operation) => [operation.path, operation.do, !!operation.sha256])).toEqual([
      [THEIRS, 'put', true],
      [pathOf('Kaolin again'), 'put', true],
    ]);
    expect((await rolloutFor(people.librarian, undo)).rollout.status).toBe('done');
    // theirs is theirs again: nobody looks after it
    const { rows } = await stationView(people.retoucher, desk);
    expect(rows.find(({ path }) => path === THEIRS)?.itemId).toBeNull();
  });

  test('is not what lies there once, nor what somebody says is meant', async () => {
    await expect(planWithoutDuplicates(people.librarian, desk, { paths: [pathOf('Kaolin')] })).rejects.toMatchObject({
      code: 'duplicate-none',
    });
    await expect(
      planWithoutDuplicates(people.librarian, desk, { paths: ['Oxbow/Looks/Old/their own.cube'] }),
    ).rejects.toMatchObject({ code: 'duplicate-none' });
    await markMeant(people.librarian, { items: looks.slice(0, 2).map(({ itemId }) => itemId) } as never);
    expect((await told()).filter(([how]) => how === 'effect')).toEqual([]);
  });
});
