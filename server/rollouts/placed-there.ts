/** What we put at a station under given paths, for those who decide about it. */
import { isUuid } from '@/core/uuid';
import { Problem } from '@/core/problem';
import type { Sql } from '../db/pool';
import * as stations from '../stations/queries';
import type { Prior } from './queries';

export interface PlacedThere {
  station: stations.StationRow;
  placements: stations.PlacementRow[];
}

/** Throws where one of the paths is not ours, or is not of an item. */
export async function placedAt(sql: Sql, stationId: string, paths: readonly string[]): Promise<PlacedThere> {
  const station = isUuid(stationId) ? await stations.stationById(sql, stationId) : undefined;
  if (!station) throw new Problem('not-found', 'There is no such station.', stationId, 'Go back to Stations.');
  const all = await stations.placements(sql, [station.id]);
  const placements = paths.map((path) => {
    const placement = all.find((one) => one.path === path);
    if (placement?.version_id) return placement;
    throw new Problem(
      'placement-unknown',
      'Etagere does not look after this file there.',
      path,
      'Reload the page, and look again.',
    );
  });
  return { station, placements };
}

/** What an undo puts back. */
export const priorOf = (placement: stations.PlacementRow): Prior => ({
  version_id: placement.version_id,
  rendition_id: placement.rendition_id,
  sha: placement.sha,
  editor_id: placement.editor_id,
  editor_version: placement.editor_version,
  place: placement.place,
});
