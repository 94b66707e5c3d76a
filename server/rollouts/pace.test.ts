/** A rollout to one station before the rest, halted, gone on with, and stopped. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import type { Operation } from '@/core/sync/protocol';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { pool, transaction } from '../db/pool';
import { many } from '../db/query';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { setPace } from './pace';
import { instructionsFor } from '../stations/service';
import { confirmRollout, moveRollout, planFor, rolloutFor, takeResults } from './service';
import { addStation, agent, approvedLook, carryOut, enrolled, planned, report } from './testing/world';
import { letVerifiedGo } from './verified';

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
    await expect(confirmRollout(people.lead, id, { first: { station: attic, goesOn: false } })).rejects.toMatchObject({
      code: 'rollout-first',
    });
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

describe('a rollout whose rest goes by itself', () => {
  const tells = async (token: string, paths: readonly string[], files: readonly Operation[]): Promise<void> => {
    const { listings } = await instructionsFor(await agent(token));
    // after what was written, by whatever clock
    const at = new Date(Date.now() + 60_000 * ++minutes).toISOString();
    const listed = paths.map((path) => ({ path, title: path, kind: 'look' }));
    const text = JSON.stringify({ at, running: true, listed, refused: [] });
    const lie = files.map(({ path, size, sha256 }) => ({ path, size, sha256: must(sha256) }));
    await report(token, lie, [{ editor: must(listings[0]).editor, text, running: true, at }]);
  };
  let minutes = 0;

  test('goes on once all of it is listed at the first station, and not before', async () => {
    const id = await planOf(3);
    await moveRollout(people.lead, id, { verb: 'confirm', first: desk, goesOn: true });
    await letVerifiedGo();
    expect(await waitsFor(roomToken)).toBeNull();
    const operations = await carryOut(deskToken);
    await tells(deskToken, [], operations);
    await letVerifiedGo();
    expect(await waitsFor(roomToken)).toBeNull();
    await tells(
      deskToken,
      operations.map(({ path }) => path),
      operations,
    );
    await letVerifiedGo();
    expect(await waitsFor(roomToken)).toBe(id);
    const [told] = await many<{ actor: string }>(
      pool(),
      "select actor from event where subject = 'rollout' and subject_id = $1 and action = 'verified'",
      [id],
    );
    expect(told?.actor).toBe('Etagere');
    // said twice, nothing changes
    await letVerifiedGo();
    await carryOut(roomToken);
    expect((await rolloutFor(people.retoucher, id)).rollout.status).toBe('done');
  });

  test('waits for a person where something went wrong at the first station, and while it is halted', async () => {
    const id = await planOf(4);
    await moveRollout(people.lead, id, { verb: 'confirm', first: desk, goesOn: true });
    const station = await agent(deskToken);
    const plan = must(await planFor(station));
    const results = plan.operations.map(({ n }) => ({
      n,
      outcome: 'failed',
      message: 'the disk is full',
      before: null,
      at: new Date().toISOString(),
    }));
    await takeResults(station, id, { results });
    await letVerifiedGo();
    expect(await waitsFor(roomToken)).toBeNull();
    await moveRollout(people.lead, id, { verb: 'release' });
    expect(await waitsFor(roomToken)).toBe(id);
    await moveRollout(people.lead, id, { verb: 'stop' });
  });
});

describe('a rollout for a time that is still to come', () => {
  const inHours = (hours: number): string => new Date(Date.now() + hours * 3600e3).toISOString();
  const starts = (id: string, at: string) => pool().query('update rollout set starts_at = $2 where id = $1', [id, at]);

  test('gives agents nothing before, and all of it then', async () => {
    const id = await planOf(5);
    for (const hours of [-1, 24 * 32])
      await expect(
        moveRollout(people.lead, id, { verb: 'confirm', at: inHours(hours) } as never),
      ).rejects.toMatchObject({
        code: 'rollout-time',
      });
    await moveRollout(people.lead, id, { verb: 'confirm', at: inHours(5) } as never);
    const { rollout, steps } = await rolloutFor(people.lead, id);
    expect([rollout.status, steps.map((step) => step.kept_back)]).toEqual(['confirmed', [true, true]]);
    expect([await waitsFor(deskToken), await waitsFor(roomToken)]).toEqual([null, null]);
    await starts(id, inHours(-0.01));
    expect([await waitsFor(deskToken), await waitsFor(roomToken)]).toEqual([id, id]);
    await moveRollout(people.lead, id, { verb: 'stop' });
  });

  test('begins at once where somebody says so, and then no more', async () => {
    const id = await planOf(6);
    await moveRollout(people.lead, id, { verb: 'confirm', at: inHours(5) } as never);
    await moveRollout(people.lead, id, { verb: 'begin' });
    expect(await waitsFor(deskToken)).toBe(id);
    await expect(setPace(people.lead, id, 'begin')).rejects.toMatchObject({ code: 'rollout-settled' });
    await moveRollout(people.lead, id, { verb: 'stop' });
  });

  test('holds no other up that is confirmed after it', async () => {
    const [late, soon] = [await planOf(7), await planOf(8)];
    await moveRollout(people.lead, late, { verb: 'confirm', at: inHours(5) } as never);
    await confirmRollout(people.lead, soon);
    expect(await waitsFor(deskToken)).toBe(soon);
    await moveRollout(people.lead, soon, { verb: 'stop' });
    await moveRollout(people.lead, late, { verb: 'stop' });
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
