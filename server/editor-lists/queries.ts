/** SQL of lists that editors keep themselves: as agents told them, and what we asked for in them last. */
import type { Sql } from '../db/pool';
import { many } from '../db/query';

/** What agents told of indexes and lists at these stations. */
export const textsAt = (
  sql: Sql,
  agents: readonly string[],
): Promise<{ station_id: string; path: string; text: string }[]> =>
  many(sql, 'select station_id, path, text from station_index where station_id = any ($1::uuid[])', [agents]);

/** What we last asked for in each list at these stations. */
export const bases = (
  sql: Sql,
  stations: readonly string[],
): Promise<{ station_id: string; path: string; asked: unknown[] }[]> =>
  many(sql, 'select station_id, path, asked from editor_list_base where station_id = any ($1::uuid[])', [stations]);

export interface BaseKey {
  station: string;
  editor: string;
  version: string;
  path: string;
}

export const setBase = (sql: Sql, { station, editor, version, path }: BaseKey, asked: readonly unknown[]) =>
  sql.query(
    `
      insert into editor_list_base (station_id, editor_id, editor_version, path, asked)
      values ($1, $2, $3, $4, $5)
      on conflict (station_id, path) do update
      set
        editor_id = excluded.editor_id, editor_version = excluded.editor_version,
        asked = excluded.asked
    `,
    [station, editor, version, path, JSON.stringify(asked)],
  );

export const dropBase = (sql: Sql, station: string, path: string) =>
  sql.query('delete from editor_list_base where station_id = $1 and path = $2', [station, path]);
