/** SQL of files at stations of which a person wants to hear no more. */
import type { Sql } from '../db/pool';
import { many } from '../db/query';

/** Those of these paths that lie there, as they are now. Resolves to how many. */
export async function ignore(sql: Sql, agentId: string, paths: readonly string[], personId: string): Promise<number> {
  const done = await sql.query(
    `
      insert into ignored_there (station_id, path, sha256, person_id)
      select inv.station_id, inv.path, inv.sha256, $3
      from inventory inv
      where inv.station_id = $1 and inv.path = any ($2::text[])
      on conflict (station_id, path) do update
      set sha256 = excluded.sha256, person_id = excluded.person_id, at = excluded.at
    `,
    [agentId, paths, personId],
  );
  return done.rowCount ?? 0;
}

export async function tellAgain(sql: Sql, agentId: string, paths: readonly string[]): Promise<number> {
  const done = await sql.query('delete from ignored_there where station_id = $1 and path = any ($2::text[])', [
    agentId,
    paths,
  ]);
  return done.rowCount ?? 0;
}

/** Those that lie there still as they were. */
export const ignoredAt = async (sql: Sql, agentId: string): Promise<string[]> =>
  (
    await many<{ path: string }>(
      sql,
      `
        select g.path
        from ignored_there g
          join inventory inv on inv.station_id = g.station_id and inv.path = g.path and inv.sha256 = g.sha256
        where g.station_id = $1
      `,
      [agentId],
    )
  ).map(({ path }) => path);
