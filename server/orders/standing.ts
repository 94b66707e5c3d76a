/** What should lie at stations, held against what was put there: of standing orders, and of whatever somebody asks about. */
import { groupBy } from '@/core/lists';
import { standingOf, type EditorAt, type Followed, type Standing } from '@/core/sync/standing';
import type { Sql } from '../db/pool';
import { camerasThere } from '../stations/cameras-there';
import { placements, stationEditors, stationsByIds } from '../stations/queries';
import * as q from './queries';

/** Of each form of these items the newest approved version, as it is followed. */
export const followedItems = async (sql: Sql, items: readonly string[]): Promise<Followed[]> =>
  (await q.newestApproved(sql, items)).map(({ kind, format, cameras, icc_class, ...version }) => ({
    ...version,
    thing: { kind, format, cameras, iccClass: icc_class },
  }));

/** The editors of stations, with what decides about them. */
async function editorsAt(sql: Sql, stations: readonly string[]): Promise<EditorAt[]> {
  const [rows, editors, cameras] = await Promise.all([
    stationsByIds(sql, stations),
    stationEditors(sql, [...stations]),
    camerasThere(sql, stations),
  ]);
  const byStation = groupBy(editors, (editor) => editor.station_id);
  return rows.flatMap(({ id, system }) =>
    (byStation.get(id) ?? []).map(({ descriptor }) => ({
      station: id,
      system,
      descriptor,
      cameras: cameras.get(id) ?? [],
    })),
  );
}

/** Each thing that is followed at each editor of these stations. */
export async function standingAt(
  sql: Sql,
  followed: readonly Followed[],
  stations: readonly string[],
): Promise<Standing[]> {
  const [editors, put] = await Promise.all([editorsAt(sql, stations), placements(sql, [...stations])]);
  return standingOf(
    followed,
    editors,
    put.flatMap(({ station_id, editor_id, editor_version, item_id, variant, number, path }) =>
      item_id && number !== null
        ? [
            {
              station: station_id,
              editor: `${editor_id}@${editor_version}`,
              item: item_id,
              variant: variant ?? '',
              number,
              path,
            },
          ]
        : [],
    ),
  );
}
