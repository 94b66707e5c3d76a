/** A plan looks up what lies under the names that matter, rather than read all that lies at all stations. */
import { expect, test } from 'vitest';
import { must } from '@/core/must';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { pool, transaction, type Sql } from '../db/pool';
import { withDatabase } from '../db/testing/database';
import { bringDescriptor } from '../editors/service';
import { versionById } from '../items/queries';
import { stations } from '../stations/queries';
import { planSteps } from './plan';
import { approvedLook } from './testing/world';

withDatabase();

const STATIONS = 60;
const FILES = 400;

async function fill(): Promise<void> {
  const sql = pool();
  await sql.query(
    `
      insert into station (id, name, kind, system, position)
      select gen_random_uuid(), 'Desk ' || n, 'workstation', 'linux', n
      from generate_series(1, $1::int) n
    `,
    [STATIONS],
  );
  await sql.query(
    `insert into station_editor (station_id, editor_id, editor_version) select id, 'oxbow', '2' from station`,
  );
  await sql.query(
    `
      insert into inventory (station_id, path, size, sha256)
      select s.id, 'Oxbow/Looks/House/file ' || f || '.cube', f, sha256(int4send(f))
      from station s, generate_series(1, $1::int) f
    `,
    [FILES],
  );
  await sql.query('analyze station, inventory');
}

/** Answers as the database does, and keeps how it would go about each statement on what lies at stations. */
function explained(sql: Sql, ways: string[]): Sql {
  const query = async (text: string, values: unknown[]) => {
    if (typeof text === 'string' && text.includes('inventory')) {
      const { rows } = await sql.query<{ 'QUERY PLAN': string }>(`explain ${text}`, values);
      ways.push(rows.map((row) => row['QUERY PLAN']).join('\n'));
    }
    return sql.query(text, values);
  };
  return { query } as unknown as Sql;
}

test('each name is looked up in the index, and nothing is compiled for it', async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 't' }, oxbow2, 'd'));
  const { versionId } = await approvedLook(1);
  await fill();
  const version = must(await versionById(pool(), versionId));
  const all = await stations(pool());
  const ways: string[] = [];
  const steps = await planSteps(explained(pool(), ways), [version], all, all, [], async () => {});
  expect(steps).toHaveLength(STATIONS);
  expect(ways).toHaveLength(1);
  expect(ways[0]).toContain('inventory_folded');
  expect(ways[0]).not.toMatch(/Seq Scan on inventory|JIT/);
});
