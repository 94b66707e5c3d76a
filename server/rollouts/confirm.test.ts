/** What is confirmed is what may be done now; and what a station cannot carry out holds nothing up. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { pool, transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { archiveItems } from '../items/edit';
import { addLicence } from '../licences/service';
import { retire } from '../versions/service';
import { fleet } from '../stations/fleet';
import { stationView } from '../stations/views';
import { moveRollout, leaveOut, planFor, rolloutFor, takeResults } from './service';
import { addStation, agent, approvedLook, carryOut, done, enrolled, planned, report, sha, work } from './testing/world';

withDatabase();

interface Desk {
  id: string;
  token: string;
}
const desks: Desk[] = [];
const desk = (n: number): Desk => must(desks[n]);

beforeAll(async () => {
  await transaction(async (sql) => {
    for (const descriptor of [oxbow2, marlstone4])
      await bringDescriptor(sql, { personId: null, name: 't' }, descriptor, 'd');
  });
  for (const [place, person] of ['Ana', 'Ana', 'Bo', ''].entries()) {
    const id = await addStation(`Desk ${place}`, 'linux', ['oxbow@2'], { person });
    desks.push({ id, token: await enrolled(id, 'linux') });
    await report(desk(place).token, []);
  }
});

const confirm = (id: string) => moveRollout(people.librarian, id, { verb: 'confirm' });
const statusOf = async (id: string) => (await rolloutFor(people.librarian, id)).rollout.status;
const outcomes = async (id: string) => (await rolloutFor(people.librarian, id)).steps.map((step) => step.outcome);
const underLicence = (item: string, licence: string) =>
  pool().query(`update item set licence_id = $2, supplier = 'Fathom Color' where id = $1`, [item, licence]);

describe('a plan that was right when it was made', () => {
  test('is not confirmed when its version has been retired since, or its item archived', async () => {
    const look = await approvedLook(0);
    const id = await planned({ versions: [look.versionId], stations: [desk(0).id] });
    await archiveItems(people.librarian, { items: [look.itemId], archived: true });
    await expect(confirm(id)).rejects.toMatchObject({ code: 'item-archived' });
    await archiveItems(people.librarian, { items: [look.itemId], archived: false });
    await retire(people.librarian, look.versionId);
    await expect(confirm(id)).rejects.toMatchObject({ code: 'not-approved' });
    await moveRollout(people.librarian, id, { verb: 'drop' });
  });

  test('is not confirmed when something else lies there since, but planned again', async () => {
    const look = await approvedLook(1);
    const id = await planned({ versions: [look.versionId], stations: [desk(0).id] });
    const path = must((await rolloutFor(people.librarian, id)).steps[0]).path;
    await report(desk(0).token, [{ path, size: 1, sha256: sha('theirs') }]);
    await expect(confirm(id)).rejects.toMatchObject({
      code: 'rollout-outdated',
      message: expect.stringContaining(`${path} at Desk 0`) as string,
    });
    await moveRollout(people.librarian, id, { verb: 'again' });
    await work(id);
    const { steps } = await rolloutFor(people.librarian, id);
    // a file of theirs is never written over: it gets another name
    expect(steps.map((step) => [step.do_what, step.path === path])).toEqual([['put', false]]);
    await moveRollout(people.librarian, id, { verb: 'drop' });
    await report(desk(0).token, []);
  });

  test('is not confirmed while another that is under way writes the same', async () => {
    const look = await approvedLook(2);
    const first = await planned({ versions: [look.versionId], stations: [desk(0).id] });
    const second = await planned({ versions: [look.versionId], stations: [desk(0).id, desk(1).id] });
    await confirm(first);
    await expect(confirm(second)).rejects.toMatchObject({ code: 'rollout-overlaps' });
    await leaveOut(people.librarian, first, { station: desk(0).id });
    await confirm(second);
    expect((await carryOut(desk(0).token)).length + (await carryOut(desk(1).token)).length).toBe(2);
    expect(await statusOf(second)).toBe('done');
  });
});

describe('what a licence says', () => {
  test('of spreading is not got around station by station', async () => {
    const look = await approvedLook(3);
    await underLicence(look.itemId, await addLicence(people.librarian, { name: 'One', may_spread: 'no' }));
    const first = await planned({ versions: [look.versionId], stations: [desk(0).id] });
    const second = await planned({ versions: [look.versionId], stations: [desk(1).id] });
    await confirm(first);
    await expect(confirm(second)).rejects.toMatchObject({ code: 'licence-forbids' });
    await carryOut(desk(0).token);
    await expect(confirm(second)).rejects.toMatchObject({ code: 'licence-forbids' });
    await expect(planned({ versions: [look.versionId], stations: [desk(1).id] })).rejects.toMatchObject({
      code: 'licence-forbids',
    });
  });

  test.each([
    ['device', 'stations', [0, 1], 2],
    ['person', 'people', [0, 1, 2], 3],
  ] as const)('of seats by %s holds, whoever confirms and in how many rollouts', async (by, words, within, beyond) => {
    const look = await approvedLook(4);
    const licence = await addLicence(people.lead, { name: `By ${by}`, may_spread: 'yes', seats: 2, seats_by: by });
    await underLicence(look.itemId, licence);
    for (const n of within) {
      await confirm(await planned({ versions: [look.versionId], stations: [desk(n).id] }));
      await carryOut(desk(n).token);
    }
    const third = await planned({ versions: [look.versionId], stations: [desk(beyond).id] });
    for (const person of [people.librarian, people.lead])
      await expect(moveRollout(person, third, { verb: 'confirm' })).rejects.toMatchObject({
        code: 'licence-seats',
        message: expect.stringContaining(`for 2 ${words}`) as string,
      });
    await pool().query('delete from placement where station_id = $1', [desk(0).id]);
    if (by === 'device') await confirm(third);
    else await expect(confirm(third)).rejects.toMatchObject({ code: 'licence-seats' });
    await pool().query('delete from placement');
    await leaveOut(people.librarian, third, { station: desk(beyond).id }).catch(() => {});
  });

  test('of seats holds when two confirm at once', async () => {
    const look = await approvedLook(5);
    await underLicence(
      look.itemId,
      await addLicence(people.lead, { name: 'Single', may_spread: 'yes', seats: 1, seats_by: 'device' }),
    );
    const plans = [];
    for (const n of [0, 1, 2, 3]) plans.push(await planned({ versions: [look.versionId], stations: [desk(n).id] }));
    const settled = await Promise.allSettled(plans.map(confirm));
    expect(settled.filter((one) => one.status === 'fulfilled')).toHaveLength(1);
    for (const n of [0, 1, 2, 3]) await carryOut(desk(n).token);
  });
});

describe('a rollout that a station cannot carry out', () => {
  const two = async (n: number) => {
    const look = await approvedLook(n);
    const id = await planned({ versions: [look.versionId], stations: [desk(2).id, desk(3).id] });
    await confirm(id);
    return id;
  };

  test('is left out there: it ends, later ones go on, and what was written is undone', async () => {
    const stuck = await two(6);
    await carryOut(desk(2).token);
    const later = await planned({ versions: [(await approvedLook(7)).versionId], stations: [desk(3).id] });
    await confirm(later);
    expect(must(await planFor(await agent(desk(3).token))).id).toBe(stuck);
    await expect(moveRollout(people.librarian, stuck, { verb: 'undo' })).rejects.toMatchObject({
      code: 'rollout-running',
    });
    expect(await leaveOut(people.librarian, stuck, { station: desk(3).id })).toEqual({ left: 1 });
    expect([await statusOf(stuck), (await outcomes(stuck)).sort()]).toEqual(['done', ['done', 'left']]);
    await expect(leaveOut(people.librarian, stuck, { station: desk(3).id })).rejects.toMatchObject({
      code: 'rollout-settled',
    });
    expect(must(await planFor(await agent(desk(3).token))).id).toBe(later);
    await carryOut(desk(3).token);
    await moveRollout(people.librarian, stuck, { verb: 'undo' });
    await carryOut(desk(2).token);
    expect(await statusOf(stuck)).toBe('undone');
  });

  test('is left out step by step', async () => {
    const look = await approvedLook(8);
    const other = await approvedLook(9);
    const id = await planned({ versions: [look.versionId, other.versionId], stations: [desk(2).id] });
    await confirm(id);
    const [step] = (await rolloutFor(people.librarian, id)).steps;
    await leaveOut(people.librarian, id, { station: desk(2).id, steps: [must(step).id] });
    expect((await carryOut(desk(2).token)).map((one) => one.n)).toEqual([1]);
    expect([await statusOf(id), await outcomes(id)]).toEqual(['done', ['left', 'done']]);
  });

  test('is dropped by the agent that was at it; what it had written by then counts, and an undoing takes it back too', async () => {
    const id = await two(10);
    const late = desk(3);
    const plan = must(await planFor(await agent(late.token)));
    await carryOut(desk(2).token);
    await leaveOut(people.librarian, id, { station: late.id });
    await moveRollout(people.librarian, id, { verb: 'undo' });
    await carryOut(desk(2).token);
    expect(await statusOf(id)).toBe('undone');
    expect(await report(late.token, [], [], plan.id)).toEqual({ need: null, drop: true });
    await takeResults(await agent(late.token), plan.id, { results: done(plan.operations) });
    expect([await statusOf(id), (await outcomes(id)).sort()]).toEqual(['undoing', ['done', 'done']]);
    expect((await carryOut(late.token)).map((one) => one.do)).toEqual(['remove']);
    expect(await statusOf(id)).toBe('undone');
  });

  test('only by who may confirm', async () => {
    const id = await two(11);
    await expect(leaveOut(people.retoucher, id, { station: desk(2).id })).rejects.toMatchObject({
      code: 'not-allowed',
    });
    for (const n of [2, 3]) await leaveOut(people.librarian, id, { station: desk(n).id });
  });
});

test('the fleet is shown a page at a time; behind its end, the last page', async () => {
  const shown = await fleet(people.librarian, 0);
  expect([shown.stations.length, shown.workstations, shown.cards]).toEqual([desks.length, desks.length, 0]);
  for (const from of [9999, 1e15, 50])
    expect((await fleet(people.librarian, from)).stations).toHaveLength(desks.length);
});

describe('a station that was away for a month', () => {
  test('carries out what was confirmed meanwhile, in order, but for what was left out; its clock may be another', async () => {
    const away = desk(3);
    while ((await carryOut(away.token)).length);
    await pool().query(`update station set last_report_at = now() - interval '31 days' where id = $1`, [away.id]);
    expect((await stationView(people.librarian, away.id)).silent).toBe(true);
    const confirmed: string[] = [];
    for (const n of [12, 13, 14]) {
      const id = await planned({ versions: [(await approvedLook(n)).versionId], stations: [away.id] });
      await confirm(id);
      await pool().query(`update rollout set confirmed_at = now() - make_interval(days => $2) where id = $1`, [
        id,
        30 - n,
      ]);
      confirmed.push(id);
    }
    await leaveOut(people.librarian, must(confirmed[1]), { station: away.id });
    const order: string[] = [];
    for (let plan = await planFor(await agent(away.token)); plan; plan = await planFor(await agent(away.token))) {
      order.push(plan.id);
      const slow = done(plan.operations).map((result) => ({ ...result, at: '2001-01-01T00:00:00.000Z' }));
      await takeResults(await agent(away.token), plan.id, { results: slow });
      await report(
        away.token,
        plan.operations.map(({ path, sha256 }) => ({ path, size: 1, sha256: must(sha256) })),
      );
    }
    expect(order).toEqual([confirmed[0], confirmed[2]]);
    expect(await Promise.all(confirmed.map(statusOf))).toEqual(['done', 'done', 'done']);
    expect((await stationView(people.librarian, away.id)).silent).toBe(false);
  });
});
