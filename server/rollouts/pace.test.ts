/** A rollout to one station before the rest, halted, gone on with, and stopped. */
import { beforeAll, describe, expect, test } from 'vitest';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { setPace } from './pace';
import { confirmRollout, moveRollout, planFor, rolloutFor } from './service';
import { addStation, agent, approvedLook, carryOut, enrolled, planned } from './testing/world';

withDatabase();

let [desk, room, attic] = ['', '', ''];
let [deskToken, roomToken] = ['', ''];
beforeAll(async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 't' }, oxbow2, 'd'));
  desk = await addStation('Desk', 'linux', ['oxbow@2']);
  room = await addStation('Room', 'linux', ['oxbow@2']);
  attic = await addStation('Attic', 'linux', ['oxbow@2']);
  deskToken = await enrolled(desk, 'linux');
  roomToken = await enrolled(room, 'linux');
});

const planOf = async (n: number): Promise<string> =>
  planned({ versions: [(await approvedLook(n)).versionId], stations: [desk, room] });
const waitsFor = async (token: string): Promise<string | null> => (await planFor(await agent(token)))?.id ?? null;

describe('a rollout in two goes', () => {
  test('goes to the first station alone, and to the rest when that is done and somebody says so', async () => {
    const id = await planOf(0);
    await expect(confirmRollout(people.lead, id, attic)).rejects.toMatchObject({ code: 'rollout-first' });
    await moveRollout(people.lead, id, { verb: 'confirm', first: desk });
    expect([await waitsFor(deskToken), await waitsFor(roomToken)]).toEqual([id, null]);
    await expect(setPace(people.lead, id, 'release')).rejects.toMatchObject({ code: 'rollout-first' });
    await carryOut(deskToken);
    const { rollout, steps } = await rolloutFor(people.retoucher, id);
    expect([rollout.status, rollout.first_station]).toEqual(['confirmed', 'Desk']);
    expect(steps.map((step) => [step.station, step.kept_back])).toEqual([
      ['Desk', false],
      ['Room', true],
    ]);
    await moveRollout(people.lead, id, { verb: 'release' });
    await expect(setPace(people.lead, id, 'release')).rejects.toMatchObject({ code: 'rollout-settled' });
    expect(await waitsFor(roomToken)).toBe(id);
    await carryOut(roomToken);
    expect((await rolloutFor(people.retoucher, id)).rollout.status).toBe('done');
  });
});

describe('a rollout that is under way', () => {
  test('is halted, so that no agent is given any of it, and gone on with', async () => {
    const id = await planOf(1);
    await confirmRollout(people.lead, id);
    await moveRollout(people.librarian, id, { verb: 'pause' });
    expect([await waitsFor(deskToken), await waitsFor(roomToken)]).toEqual([null, null]);
    await expect(setPace(people.lead, id, 'pause')).rejects.toMatchObject({ code: 'rollout-settled' });
    await moveRollout(people.librarian, id, { verb: 'resume' });
    await expect(setPace(people.lead, id, 'resume')).rejects.toMatchObject({ code: 'rollout-settled' });
    expect(await waitsFor(deskToken)).toBe(id);
    await carryOut(deskToken);
    // what is in hand when it is halted is finished
    await moveRollout(people.librarian, id, { verb: 'pause' });
    expect((await rolloutFor(people.lead, id)).steps.map(({ outcome }) => outcome)).toEqual(['done', null]);
    await moveRollout(people.librarian, id, { verb: 'stop' });
    const { rollout, steps } = await rolloutFor(people.lead, id);
    expect([rollout.status, steps.map(({ outcome }) => outcome)]).toEqual(['done', ['done', 'left']]);
    await expect(setPace(people.lead, id, 'stop')).rejects.toMatchObject({ code: 'rollout-settled' });
  });

  test('is not for a retoucher to halt', async () => {
    const id = await planOf(2);
    await confirmRollout(people.lead, id);
    for (const pace of ['pause', 'resume', 'release', 'stop'] as const)
      await expect(setPace(people.retoucher, id, pace)).rejects.toMatchObject({ code: 'not-allowed' });
  });
});
