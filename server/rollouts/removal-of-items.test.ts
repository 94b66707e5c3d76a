/** Items go from every station that has them, by one plan: as a pack comes and goes as one. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import perrinAlder from '@/standins/descriptors/perrin-alder-1.json';
import { transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { takeReport } from '../stations/service';
import { planRemovalOfItems } from './removal';
import { confirmRollout, rolloutFor, undoRollout } from './service';
import { addStation, agent, approvedLook, carryOut, enrolled, planned, sha } from './testing/world';

withDatabase();

interface Machine {
  id: string;
  token: string;
  /** what lies there, by path */ lying: Map<string, string>;
}
const INDEX = 'media/ALDER/LOOKS.LST';
let machines: Machine[] = [];
let card = '';
let looks: { itemId: string; versionId: string }[] = [];

async function says({ token, lying }: Machine): Promise<void> {
  const files = [...lying].map(([path, sha256]) => ({ path, size: 9, sha256 }));
  const names = [...lying.keys()].filter((path) => path.startsWith('media/') && path !== INDEX);
  const text = names.map((path) => `${path.split('/').at(-1)}\r\n`).join('');
  await takeReport(await agent(token), {
    agentVersion: '0.6.0',
    files,
    digest: sha(JSON.stringify(files)),
    listings: [],
    indexes: text ? [{ path: INDEX, text }] : [],
    waiting: null,
  });
}
/** Each agent carries out what waits for it; what they did, by path. */
async function carried(): Promise<string[]> {
  const did: string[] = [];
  for (const machine of machines) {
    for (const { do: what, path, sha256, n } of await carryOut(machine.token)) {
      if (what === 'remove') machine.lying.delete(path);
      else machine.lying.set(path, must(sha256));
      did.push(`${n} ${what} ${path}`);
    }
    await says(machine);
  }
  return did;
}

beforeAll(async () => {
  await transaction(async (sql) => {
    for (const descriptor of [oxbow2, perrinAlder])
      await bringDescriptor(sql, { personId: null, name: 't' }, descriptor, 'd');
  });
  for (const name of ['Desk', 'Room']) {
    const id = await addStation(name, 'linux', ['oxbow@2']);
    machines = [...machines, { id, token: await enrolled(id, 'linux'), lying: new Map() }];
  }
  const [desk, room] = machines;
  card = await addStation('Card', 'linux', ['perrin-alder@1'], { hostId: must(room).id });
  for (const machine of machines) await says(machine);
  looks = [await approvedLook(0), await approvedLook(1)];
  const versions = looks.map(({ versionId }) => versionId);
  await confirmRollout(people.librarian, await planned({ versions, stations: [must(desk).id, must(room).id, card] }));
  await carried();
});

const removal = (...items: string[]) => planRemovalOfItems(people.librarian, { items, title: 'Take Glazes away' });

describe('items that go everywhere', () => {
  test('go by one plan, whose steps are numbered through at each agent; its undo brings them back', async () => {
    const before = machines.map(({ lying }) => [...lying.keys()].sort());
    const { rollout } = await removal(...looks.map(({ itemId }) => itemId));
    const { rollout: plan, steps } = await rolloutFor(people.lead, rollout);
    expect([plan.title, plan.status]).toEqual(['Take Glazes away', 'planned']);
    for (const machine of machines) {
      const numbers = steps.filter((step) => step.agent_station_id === machine.id).map(({ n }) => n);
      expect(numbers.toSorted((one, other) => one - other)).toEqual(numbers.map((_, n) => n));
    }
    await confirmRollout(people.lead, rollout);
    const did = await carried();
    expect(did.filter((one) => one.includes(' remove '))).toHaveLength(6);
    expect(machines.flatMap(({ lying }) => [...lying.keys()])).toEqual([INDEX]);
    await undoRollout(people.lead, rollout);
    await carried();
    expect(machines.map(({ lying }) => [...lying.keys()].sort())).toEqual(before);
  });

  test('leave what was changed there, and say so where nothing else is left', async () => {
    const [desk, room] = machines;
    for (const machine of [must(desk), must(room)])
      for (const path of machine.lying.keys()) if (path !== INDEX) machine.lying.set(path, sha(`by hand ${path}`));
    for (const machine of machines) await says(machine);
    await expect(removal(must(looks[0]).itemId)).rejects.toThrow(/lies anywhere as Etagere put it/);
  });

  test('that lie nowhere, or by who may not plan, are no plan', async () => {
    const other = await approvedLook(2);
    await expect(removal(other.itemId)).rejects.toThrow(/lies at any station that is in use/);
    await expect(planRemovalOfItems(people.retoucher, { items: [other.itemId] })).rejects.toMatchObject({
      code: 'not-allowed',
    });
  });
});
