/** The fleet by name, system, editor and need, against the database. */
import { beforeAll, describe, expect, test } from 'vitest';
import { wholeFleet, type FleetFilter } from '@/core/records/fleet';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { pool, transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { addStation, approvedLook, carryOut, enrolled, planned, report } from '../rollouts/testing/world';
import { confirmRollout } from '../rollouts/service';
import { fleet } from './fleet';

withDatabase();
const ids: Record<string, string> = {};
const names = async (part: Partial<FleetFilter>): Promise<string[]> =>
  (await fleet(people.retoucher, 0, { ...wholeFleet, ...part })).stations.map(({ station }) => station.name);

beforeAll(async () => {
  await transaction(async (sql) => {
    for (const descriptor of [oxbow2, marlstone4])
      await bringDescriptor(sql, { personId: null, name: 'test' }, descriptor, 'd');
  });
  const tokens: Record<string, string> = {};
  for (const [name, system, editors] of [
    ['Kiln', 'linux', ['oxbow@2']],
    ['Loft 100%_', 'macos', ['oxbow@2', 'marlstone@4']],
    ['Yard', 'macos', ['marlstone@4']],
    ['Shed', 'linux', ['oxbow@2']],
  ] as const) {
    ids[name] = await addStation(name, system, [...editors], { person: name === 'Yard' ? 'Mirre Sand' : '' });
    tokens[name] = await enrolled(ids[name], system);
    await report(tokens[name], []);
  }
  const { versionId } = await approvedLook(0);
  const rollout = await planned({ versions: [versionId], stations: [ids.Kiln ?? ''] });
  await confirmRollout(people.librarian, rollout);
  const written = await carryOut(tokens.Kiln ?? '');
  await report(
    tokens.Kiln ?? '',
    written.map(({ path, size, sha256 }) => ({ path, size, sha256: sha256 ?? '' })),
  );
  await pool().query(`update station set last_report_at = now() - interval '3 days' where name = 'Shed'`);
  await addStation('Attic', 'windows', ['marlstone@4']);
});

test('a card in the reader of a silent station is not silent itself: the number is that of the rows', async () => {
  const card = await addStation('Card', 'linux', [], { hostId: ids.Shed ?? null });
  const { stations, silent } = await fleet(people.retoucher, 0, { ...wholeFleet, show: 'silent' });
  expect(stations.map(({ station }) => station.name)).toEqual(['Shed']);
  expect(silent).toBe(1);
  await pool().query('delete from station where id = $1', [card]);
});

describe('the fleet', () => {
  test('is found by a part of a name or of a person, whatever signs are typed', async () => {
    expect(await names({ words: 'KIL' })).toEqual(['Kiln']);
    expect(await names({ words: 'sand' })).toEqual(['Yard']);
    expect(await names({ words: '100%_' })).toEqual(['Loft 100%_']);
    expect(await names({ words: '%' })).toEqual(['Loft 100%_']);
    expect(await names({ words: `'; drop table station; --` })).toEqual([]);
  });
  test('is narrowed by system and editor, together', async () => {
    expect(await names({ system: 'macos' })).toEqual(['Loft 100%_', 'Yard']);
    expect(await names({ system: 'macos', editor: 'oxbow@2' })).toEqual(['Loft 100%_']);
    expect(await names({ editor: 'unknown@9' })).toEqual([]);
  });
  test('says what each needs, and shows those that need it', async () => {
    const { stations, silent, fitting } = await fleet(people.retoucher, 0, wholeFleet);
    expect(Object.fromEntries(stations.map(({ station, need }) => [station.name, need]))).toEqual({
      Kiln: 'start',
      'Loft 100%_': 'none',
      Yard: 'none',
      Shed: 'somebody',
      Attic: 'none',
    });
    expect([silent, fitting]).toEqual([1, 5]);
    expect(await names({ show: 'silent' })).toEqual(['Shed']);
    expect(await names({ show: 'start' })).toEqual(['Kiln']);
    expect(await names({ show: 'somebody', words: 'Kiln' })).toEqual([]);
  });
  test('stands by need, or by its last word', async () => {
    expect((await names({ order: 'need' })).slice(0, 2)).toEqual(['Shed', 'Kiln']);
    // one that never reported has been silent for longest
    expect((await names({ order: 'report' })).slice(0, 2)).toEqual(['Attic', 'Shed']);
  });
  test('names the editors that stand anywhere, and no other', async () => {
    const { editors } = await fleet(people.retoucher);
    expect(editors.map(({ id }) => id)).toEqual(['marlstone@4', 'oxbow@2']);
  });
  test('behind the end of a filtered list shows its last page', async () => {
    const { from, stations } = await fleet(people.retoucher, 5000, { ...wholeFleet, order: 'need' });
    expect([from, stations.length]).toEqual([0, 5]);
  });
});
