/** Where the studio asks for it, nobody confirms what they planned themselves. */
import { beforeAll, describe, expect, test } from 'vitest';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { listActivity } from '../activity/service';
import { pool, transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { asksForReview, setReview } from '../studio/review';
import { moveRollout, rolloutFor, undoRollout } from './service';
import { addStation, approvedLook, carryOut, enrolled, planned, report } from './testing/world';

withDatabase();
let station = '';
let token = '';

beforeAll(async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 't' }, oxbow2, 'd'));
  station = await addStation('Kiln', 'linux', ['oxbow@2']);
  token = await enrolled(station, 'linux');
  await report(token, []);
});

/** Planned by the librarian. */
const plan = async (n: number): Promise<string> =>
  planned({ versions: [(await approvedLook(n)).versionId], stations: [station] });

describe('a review by another person', () => {
  test('is not asked for until the lead says so, and the log tells of it', async () => {
    expect(await asksForReview()).toBe(false);
    await expect(setReview(people.librarian, { asked: true })).rejects.toMatchObject({ code: 'not-allowed' });
    await setReview(people.lead, { asked: true });
    await setReview(people.lead, { asked: true });
    expect(await asksForReview()).toBe(true);
    const { rows } = await listActivity(people.lead, {});
    expect(rows.filter(({ action }) => action === 'set who confirms a rollout')).toHaveLength(1);
  });

  test('refuses who planned it, and lets another one confirm', async () => {
    const id = await plan(0);
    const own = moveRollout(people.librarian, id, { verb: 'confirm' });
    await expect(own).rejects.toMatchObject({
      code: 'rollout-review',
      remedy: expect.stringContaining('Ask') as string,
    });
    expect((await rolloutFor(people.librarian, id)).rollout.status).toBe('planned');
    await moveRollout(people.lead, id, { verb: 'confirm' });
    const { rollout } = await rolloutFor(people.librarian, id);
    expect([rollout.person, rollout.approver]).toEqual(['Odile Wren', 'Piet Tallow']);
    await carryOut(token);
    // what went wrong is taken back by whoever is there
    await undoRollout(people.librarian, id);
    await carryOut(token);
    expect((await rolloutFor(people.librarian, id)).rollout.status).toBe('undone');
  });

  test('holds for a plan that was made before it was asked for', async () => {
    await setReview(people.lead, { asked: false });
    const id = await plan(1);
    await setReview(people.lead, { asked: true });
    await expect(moveRollout(people.librarian, id, { verb: 'confirm' })).rejects.toMatchObject({
      code: 'rollout-review',
    });
    await setReview(people.lead, { asked: false });
    await moveRollout(people.librarian, id, { verb: 'confirm' });
  });

  test('is refused where only one person could confirm at all', async () => {
    await pool().query(`update person set active = false where id = $1`, [people.librarian.id]);
    await expect(setReview(people.lead, { asked: true })).rejects.toMatchObject({ code: 'review-alone' });
    expect(await asksForReview()).toBe(false);
  });
});
