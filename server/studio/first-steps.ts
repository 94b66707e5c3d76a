/** What a new studio does first, and how far it is: told by what there is, not by what was clicked. */
import type { BodyOf } from '@/core/api';
import { stepsHidden } from '@/core/api/studio';
import { checked } from '../input';
import { pool, transaction } from '../db/pool';
import { record } from '../activity/queries';
import { actorOf, allow, may, type Action, type Person } from '../people/roles';
import * as q from './queries';

export type StepName = keyof q.StepsDone;

export interface FirstStep {
  name: StepName;
  done: boolean;
  /** whoever looks may do it */ mine: boolean;
}

/** In the order in which one leads to the next. */
const steps: readonly { name: StepName; needs: Action }[] = [
  { name: 'people', needs: 'person.add' },
  { name: 'shelf', needs: 'shelf.edit' },
  { name: 'delivery', needs: 'arrival.make' },
  { name: 'bench', needs: 'verdict.give' },
  { name: 'station', needs: 'station.enrol' },
  { name: 'rollout', needs: 'rollout.confirm' },
];

/** Empty once all is done, or where nobody wants to see it. */
export async function firstSteps(person: Person): Promise<FirstStep[]> {
  allow(person, 'view');
  const { hidden, ...done } = await q.firstSteps(pool());
  const all = steps.map(({ name, needs }) => ({ name, done: done[name], mine: may(person, needs) }));
  return hidden || all.every((step) => step.done) ? [] : all;
}

export async function hideFirstSteps(person: Person, input: BodyOf<'PATCH /api/studio/first-steps'>): Promise<void> {
  allow(person, 'studio.set');
  const { hidden } = checked(stepsHidden, input);
  await transaction(async (sql) => {
    await q.setStepsHidden(sql, hidden);
    await record(sql, actorOf(person), 'studio', 'first steps', hidden ? 'hidden' : 'shown');
  });
}
