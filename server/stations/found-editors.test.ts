/** Editors that an agent finds on its machine: looked for, told, proposed, added. */
import { beforeAll, expect, test } from 'vitest';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import perrinAlder from '@/standins/descriptors/perrin-alder-1.json';
import { pool, transaction } from '../db/pool';
import { many } from '../db/query';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { addStation, agent, enrolled, sha } from '../rollouts/testing/world';
import { foundEditors } from './found-editors';
import { changeStation, instructionsFor, takeReport } from './service';
import { stationView } from './views';

withDatabase();

let desk = '';
let token = '';

/** @param found null for an agent that does not look */
async function tells(found: string[] | null): Promise<void> {
  const said = found ? { found } : {};
  const report = { agentVersion: '0.6.0', files: [], digest: sha('none'), listings: [], indexes: [], waiting: null };
  await takeReport(await agent(token), { ...report, ...said });
}
const proposed = async () => foundEditors(people.retoucher, await stationView(people.retoucher, desk));
const times = async (): Promise<number> =>
  (await many(pool(), "select from event where action = 'editors found'")).length;

beforeAll(async () => {
  await transaction(async (sql) => {
    for (const descriptor of [oxbow2, marlstone4, perrinAlder])
      await bringDescriptor(sql, { personId: null, name: 't' }, descriptor, 'd');
  });
  desk = await addStation('Desk', 'macos', ['oxbow@2']);
  token = await enrolled(desk, 'macos');
});

test('are looked for by the lists that they write of themselves, cards left out', async () => {
  const { lookedFor = [] } = await instructionsFor(await agent(token));
  expect(lookedFor.map(({ editor }) => editor)).toEqual(['marlstone@4', 'oxbow@2']);
  expect(lookedFor[0]?.path).toMatch(/^Library\/Application Support\/\.marlstone-4\//);
});

test('are proposed where the station is not said to have them, and told once', async () => {
  await tells(['marlstone@4', 'oxbow@2', 'unheard@9']);
  await tells(['marlstone@4', 'oxbow@2', 'unheard@9']);
  expect([await proposed(), await times()]).toEqual([[{ id: 'marlstone@4', title: 'Marlstone 4' }], 1]);
  // an agent of before says nothing of it, and what was found stays
  await tells(null);
  expect(await proposed()).toHaveLength(1);
});

test('are no proposal any more once they are added, or gone from the machine', async () => {
  await changeStation(people.librarian, desk, { name: 'Desk', person: '', came: ['marlstone@4'] });
  expect(await proposed()).toEqual([]);
  await changeStation(people.librarian, desk, { name: 'Desk', person: '', went: ['marlstone@4'] });
  expect(await proposed()).toHaveLength(1);
  await tells([]);
  expect([await proposed(), await times()]).toEqual([[], 2]);
});
