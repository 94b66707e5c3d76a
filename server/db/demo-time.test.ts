import { expect, test } from 'vitest';
import { daysAgo } from '@/demo/time';
import { many } from './query';
import { pool } from './pool';
import { people, withDatabase } from './testing/database';
import { saveBench } from '../bench/service';

withDatabase();

/** How many days ago each bench was kept, by its name; and when that was told. */
const benches = async () => {
  const rows = await many<{ name: string; days: number; told: number }>(
    pool(),
    `
      select b.name,
        round(extract(epoch from now() - b.created_at) / 86400)::int as days,
        round(extract(epoch from now() - e.at) / 86400)::int as told
      from bench b
      join event e on e.subject = 'bench' and e.subject_id = b.id::text
    `,
  );
  return Object.fromEntries(rows.map(({ name, days, told }) => [name, [days, told]]));
};

test('work of the past is as long ago as it is said to be, with all that is told of it, and moves nothing else', async () => {
  const keep = (name: string) => saveBench(people.librarian, null, { name, state: 'rows=' });
  await keep('Before');
  await daysAgo(20, () => keep('Long ago'));
  await daysAgo(6, () => keep('Last week'));
  await keep('Now');
  expect(await benches()).toEqual({ Before: [0, 0], 'Long ago': [20, 20], 'Last week': [6, 6], Now: [0, 0] });
});
