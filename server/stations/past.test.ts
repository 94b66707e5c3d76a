/** What lay at a station on any day: as it was replaced, taken away, and taken back. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { pool, transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { addStation, approvedLook, carryOut, enrolled, planned, report, sha } from '../rollouts/testing/world';
import { confirmRollout, undoRollout } from '../rollouts/service';
import { pastFor } from './past';

withDatabase();
let station = '';
let token = '';
let path = '';
const today = new Date().toISOString().slice(0, 10);
const daysBack = (days: number): string => new Date(Date.now() - days * 24 * 3600e3).toISOString().slice(0, 10);

/** Moves all that has been written so far into the past. */
async function daysPass(days: number): Promise<void> {
  const by = `make_interval(days => ${days})`;
  await pool().query(`update placement set placed_at = placed_at - ${by}`);
  await pool().query(`update placement_past set placed_at = placed_at - ${by}, gone_at = gone_at - ${by}`);
  await pool().query(`update rollout_step set settled_at = settled_at - ${by}`);
}

async function rolledOut(n: number): Promise<string> {
  const { versionId } = await approvedLook(n);
  const rollout = await planned({ versions: [versionId], stations: [station] });
  await confirmRollout(people.librarian, rollout);
  const [written] = await carryOut(token);
  path = must(written).path;
  await report(token, [{ path, size: 1, sha256: must(must(written).sha256) }]);
  return rollout;
}
const lay = async (day?: string) =>
  (await pastFor(people.retoucher, station, day)).lay.map((one) => [one.title, one.number, one.gone_at === null]);

beforeAll(async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 'test' }, oxbow2, 'd'));
  station = await addStation('Kiln', 'linux', ['oxbow@2']);
  token = await enrolled(station, 'linux');
  await report(token, []);
});

describe('what lay at a station', () => {
  test('is nothing before anything was put there', async () => {
    expect(await lay()).toEqual([]);
    expect((await pastFor(people.retoucher, station, undefined)).changes).toEqual([]);
  });

  test('is told by day, from the first rollout to its undoing', async () => {
    const rollout = await rolledOut(0);
    const title = must((await pastFor(people.retoucher, station, today)).lay[0]).title;
    await daysPass(5);
    await undoRollout(people.librarian, rollout);
    await carryOut(token);
    await report(token, []);
    await daysPass(3);
    // put eight days ago, taken away three days ago
    expect(await lay(daysBack(9))).toEqual([]);
    expect(await lay(daysBack(8))).toEqual([[title, 1, false]]);
    expect(await lay(daysBack(4))).toEqual([[title, 1, false]]);
    expect(await lay(daysBack(3))).toEqual([]);
    expect(await lay()).toEqual([]);
    const { changes } = await pastFor(people.retoucher, station, undefined);
    expect(changes.map(({ put, removed, undoes }) => [put, removed, undoes])).toEqual([
      [0, 1, true],
      [1, 0, false],
    ]);
  });

  test('keeps the title of what the library holds no more', async () => {
    await pool().query(`update placement_past set version_id = null`);
    const [then] = (await pastFor(people.retoucher, station, daysBack(8))).lay;
    expect(must(then)).toMatchObject({ item_id: null, number: 1, editor: 'Oxbow 2' });
    expect(must(then).title).not.toBeNull();
  });

  test('which is replaced is what it was until then', async () => {
    await rolledOut(1);
    const first = must((await pastFor(people.retoucher, station, today)).lay[0]).title;
    await daysPass(2);
    await pool().query(`update placement set sha256 = decode($1, 'hex'), placed_at = now()`, [sha('another')]);
    expect(await lay(daysBack(1))).toEqual([[first, 1, false]]);
    expect(await lay()).toEqual([[first, 1, true]]);
  });

  test('is there today, though the clock of its station goes a day ahead', async () => {
    await pool().query(`update placement set placed_at = now() + interval '1 day'`);
    expect(await lay()).toHaveLength(1);
  });

  test('of a day to come, or of none, is that of today', async () => {
    for (const asked of ['2999-01-01', '2026-02-31', 'x', '', `${today}T00`])
      expect((await pastFor(people.retoucher, station, asked)).day).toBe(today);
  });

  test('goes with its station', async () => {
    await pool().query('delete from rollout_step');
    await pool().query('delete from station');
    const { rows } = await pool().query('select 1 from placement_past');
    expect(rows).toEqual([]);
  });
});
