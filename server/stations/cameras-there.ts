/** Which of the studio's cameras are used at a station, so that a camera profile goes where its camera is. */
import type { BodyOf } from '@/core/api';
import { stationEndpoints } from '@/core/api/stations';
import { bodyOf } from '@/core/frame/body';
import { groupBy } from '@/core/lists';
import { Problem } from '@/core/problem';
import { record } from '../activity/queries';
import { pool, transaction, type Sql } from '../db/pool';
import { checked } from '../input';
import { actorOf, allow, type Person } from '../people/roles';
import * as q from './queries';

/** By station; a station of which nobody has said anything has none. */
export const camerasThere = async (sql: Sql, stations: readonly string[]): Promise<Map<string, q.CameraThere[]>> =>
  groupBy(await q.camerasUsedAt(sql, stations), (camera) => camera.station_id);

type Change = Readonly<Record<'came' | 'went', readonly string[]>>;

/** Cameras that came to a station and went from it, in a transaction of the caller's. Throws where a named one is not listed. */
export async function moveCameras(
  sql: Sql,
  person: Person,
  station: { id: string; name: string },
  { came, went }: Change,
): Promise<void> {
  const nameOf = new Map(
    (await q.camerasByIds(sql, [...came, ...went])).map((camera) => [camera.id, nameOfBody(camera)]),
  );
  if (came.some((id) => !nameOf.has(id)))
    throw new Problem(
      'not-found',
      'The studio lists no such camera any more.',
      station.name,
      'Reload the page, and choose again.',
    );
  const added = await q.insertStationCameras(sql, station.id, came);
  const gone = await q.deleteStationCameras(sql, station.id, went);
  if (!added.length && !gone.length) return;
  const named = (rows: readonly { camera_id: string }[]): string =>
    rows.map(({ camera_id }) => nameOf.get(camera_id) ?? '').join('; ');
  await record(sql, actorOf(person), 'station', station.id, 'cameras changed', null, {
    added: named(added),
    gone: named(gone),
  });
}

const nameOfBody = ({ model, conversion }: { model: string; conversion: string }): string =>
  bodyOf({ camera: model, conversion });

export interface CameraChoice {
  id: string;
  name: string;
  used: boolean;
}

/** All of the studio's cameras, and whether each is used at a station. */
export async function cameraChoices(person: Person, stationId: string): Promise<CameraChoice[]> {
  allow(person, 'view');
  return (await q.camerasFor(pool(), stationId)).map((camera) => ({
    id: camera.id,
    name: nameOfBody(camera),
    used: camera.used,
  }));
}

/** Says which cameras came to a station and which went; what others said meanwhile stays. */
export async function changeCameras(
  person: Person,
  id: string,
  input: BodyOf<'PATCH /api/stations/:id/cameras'>,
): Promise<void> {
  allow(person, 'station.enrol');
  const change = checked(stationEndpoints['PATCH /api/stations/:id/cameras'].body, input);
  await transaction(async (sql) => {
    const station = await q.stationById(sql, id);
    if (!station) throw new Problem('not-found', 'There is no such station.', id, 'Go back to Stations.');
    await moveCameras(sql, person, station, change);
  });
}
