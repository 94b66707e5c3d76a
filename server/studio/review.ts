/** Whether another person looks at a rollout before it goes. */
import type { BodyOf } from '@/core/api';
import { studioEndpoints } from '@/core/api/studio';
import { Problem } from '@/core/problem';
import { record } from '../activity/queries';
import { pool, transaction, type Sql } from '../db/pool';
import { checked } from '../input';
import { actions, actorOf, allow, type Person } from '../people/roles';
import * as q from './queries';

/** Whether nobody confirms what they planned themselves. */
export const asksForReview = (sql: Sql = pool()): Promise<boolean> => q.secondPerson(sql);

/** Throws where it is asked for, and fewer than two people could look after one another. */
export async function setReview(person: Person, input: BodyOf<'PATCH /api/studio/review'>): Promise<void> {
  allow(person, 'review.set');
  const { asked } = checked(studioEndpoints['PATCH /api/studio/review'].body, input);
  await transaction(async (sql) => {
    const before = await q.secondPerson(sql);
    if (before === asked) return;
    if (asked && (await q.activePeople(sql, actions['rollout.confirm'])) < 2)
      throw new Problem(
        'review-alone',
        'Only one person here may confirm rollouts: nobody could look at what they plan.',
        'Rollouts',
        'Invite another librarian or lead first.',
      );
    await q.setSecondPerson(sql, asked);
    await record(
      sql,
      actorOf(person),
      'studio',
      'review',
      'set who confirms a rollout',
      { another: before },
      { another: asked },
    );
  });
}

/** Of a plan: whether this person has to leave it to another one. */
export const needsAnother = (asked: boolean, person: Pick<Person, 'id'>, planner: string): boolean =>
  asked && person.id === planner;

/** Throws where the studio asks for another person, and this one made the plan. */
export async function refuseOwnPlan(
  sql: Sql,
  person: Person,
  rollout: { title: string; person_id: string },
): Promise<void> {
  if (needsAnother(await asksForReview(sql), person, rollout.person_id))
    throw new Problem(
      'rollout-review',
      'The studio asks that another person confirms what one has planned.',
      rollout.title,
      'Ask another librarian or lead to look at the plan and to confirm it.',
    );
}
