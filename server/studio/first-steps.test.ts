import { beforeAll, expect, test } from 'vitest';
import { pool } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import type { Person } from '../people/roles';
import { addShelf } from '../shelves/service';
import { firstSteps, hideFirstSteps } from './first-steps';

withDatabase();
const undone = async (person: Person): Promise<string[]> =>
  (await firstSteps(person)).filter((step) => !step.done).map((step) => step.name);

beforeAll(async () => {
  expect(await undone(people.librarian)).toEqual(['shelf', 'delivery', 'bench', 'station', 'rollout']);
});

test('a step is done by what there is', async () => {
  await addShelf(people.librarian, { name: 'House looks' });
  expect(await undone(people.librarian)).toEqual(['delivery', 'bench', 'station', 'rollout']);
});

test('whoever may not do a step is told of it, and not led there', async () => {
  const steps = await firstSteps(people.retoucher);
  expect(steps.filter((step) => step.mine).map((step) => step.name)).toEqual(['bench']);
});

test('they are hidden for all, by who may set things, and shown again', async () => {
  await expect(hideFirstSteps(people.retoucher, { hidden: true })).rejects.toMatchObject({ code: 'not-allowed' });
  await hideFirstSteps(people.lead, { hidden: true });
  expect(await firstSteps(people.librarian)).toEqual([]);
  await hideFirstSteps(people.librarian, { hidden: false });
  expect(await firstSteps(people.librarian)).toHaveLength(6);
});

test('they are gone once all is done', async () => {
  const id = (await pool().query<{ id: string }>('select id from person limit 1')).rows[0]?.id;
  await pool().query(
    `insert into arrival (id, name, status) values ('01a210e5-4862-76ff-8bf1-cca38cebf5b1', 'x', 'accepted')`,
  );
  await pool().query(
    `insert into bench (id, name, person_id, state) values ('01a210e5-4862-76ff-8bf1-cca38cebf5b2', 'x', $1, 'x')`,
    [id],
  );
  await pool().query(
    `insert into station (id, name, system, position, token_sha256)
     values ('01a210e5-4862-76ff-8bf1-cca38cebf5b3', 'x', 'linux', 1, '\\x01')`,
  );
  await pool().query(
    `insert into rollout (id, title, status, person_id)
     values ('01a210e5-4862-76ff-8bf1-cca38cebf5b4', 'x', 'done', $1)`,
    [id],
  );
  expect(await firstSteps(people.librarian)).toEqual([]);
});
