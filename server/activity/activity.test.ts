import { beforeEach, expect, test } from 'vitest';
import { transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { actorOf, type Person } from '../people/roles';
import { record } from './queries';
import { activityOfItem, listActivity } from './service';

withDatabase();

const ITEM = '01a22c08-40ef-725b-8989-910e13e1c898';
const OTHER = '01a22c08-4bf4-7192-9f7d-b8441055a1fb';

const renamed = (person: Person, item: string, title: string) =>
  transaction((sql) => record(sql, actorOf(person), 'item', item, 'renamed', { title: '' }, { title }));

const titles = (rows: { after: Record<string, unknown> | null }[]): unknown[] => rows.map((row) => row.after?.title);

beforeEach(async () => {
  await renamed(people.lead, ITEM, 'first');
  await renamed(people.librarian, OTHER, 'second');
  await renamed(people.librarian, ITEM, 'third');
  await transaction((sql) => record(sql, actorOf(people.lead), 'job', ITEM, 'done', null, { title: 'a job' }));
});

test('what happened is told newest first, without jobs; by page, with where the next begins', async () => {
  const { rows, more } = await listActivity(people.lead, { subject: 'item' }, 2);
  expect(titles(rows)).toEqual(['third', 'second']);
  const next = await listActivity(people.lead, { subject: 'item', below: String(more) }, 1);
  expect(titles(next.rows)).toEqual(['first']);
  const all = await listActivity(people.lead, {});
  expect(all.rows.map((row) => row.subject)).not.toContain('job');
});

test('what one person did, and that of one kind', async () => {
  const { rows } = await listActivity(people.lead, { person: people.lead.id, subject: 'item' });
  expect(titles(rows)[0]).toBe('first');
  expect(new Set(rows.map((row) => row.actor))).toEqual(new Set([people.lead.name]));
});

test('what happened to one item is of this item alone', async () => {
  const rows = await activityOfItem(people.retoucher, ITEM);
  expect(titles(rows).slice(0, 2)).toEqual(['third', 'first']);
  expect(new Set(rows.map((row) => row.subject_id))).toEqual(new Set([ITEM]));
  expect(titles(await activityOfItem(people.retoucher, ITEM, 1))).toEqual(['third']);
});
