/** SQL of sightings: items that are to be seen working in editors at stations. */
import type { SightingFigures, SightingState } from '@/core/records/sighting';
import type { Sql } from '../db/pool';
import { many, maybe } from '../db/query';

export interface SightingRow {
  id: string;
  station_id: string;
  station: string;
  path: string;
  /** what lay there when it was asked, as hex */ sha: string;
  editor_id: string;
  editor_version: string;
  version_id: string;
  item_id: string;
  title: string;
  frame_id: string;
  frame: string;
  picture_sha256: Buffer;
  picture_size: number;
  result_sha256: Buffer | null;
  by: 'editor' | 'person';
  asked_at: Date;
  told_at: Date | null;
  state: SightingState;
  reason: string;
  figures: SightingFigures | null;
}
const COLUMNS = `
  g.id, g.station_id, s.name as station, g.path, encode(g.sha256, 'hex') as sha, g.editor_id, g.editor_version,
  g.version_id, i.id as item_id, i.title, g.frame_id, f.name as frame, g.picture_sha256, b.size as picture_size,
  g.result_sha256, g.by, g.asked_at, g.told_at, g.state, g.reason, g.figures
`;
const FROM = `
  sighting g
    join station s on s.id = g.station_id
    join version v on v.id = g.version_id
    join item i on i.id = v.item_id
    join frame f on f.id = g.frame_id
    join blob b on b.sha256 = g.picture_sha256
`;

export const sightingById = (sql: Sql, id: string): Promise<SightingRow | undefined> =>
  maybe<SightingRow>(sql, `select ${COLUMNS} from ${FROM} where g.id = $1`, [id]);

/** The newest of each file that lies at these stations. */
export const newestSightings = (sql: Sql, stations: readonly string[]): Promise<SightingRow[]> =>
  many<SightingRow>(
    sql,
    `
      select distinct on (g.station_id, g.path)
        ${COLUMNS}
      from ${FROM}
      where g.station_id = any ($1::uuid[])
      order by g.station_id, g.path, g.asked_at desc
    `,
    [stations],
  );

/** What editors at a station are asked for and have not answered, the longest asked first. */
export const askedAt = (sql: Sql, station: string, most: number): Promise<SightingRow[]> =>
  many<SightingRow>(sql, {
    name: 'pictures asked for',
    text: `
      select ${COLUMNS}
      from ${FROM}
      where g.station_id = $1 and g.state = 'asked' and g.by = 'editor'
      order by g.asked_at
      limit $2
    `,
    values: [station, most],
  });

export interface NewSighting {
  id: string;
  stationId: string;
  path: string;
  sha: string;
  editorId: string;
  editorVersion: string;
  versionId: string;
  frameId: string;
  picture: Buffer;
  by: 'editor' | 'person';
  personId: string;
}
/** What was asked of the same file and not answered gives way, also where two people ask at once. */
export const insertSighting = (sql: Sql, one: NewSighting) =>
  sql.query(
    `
      insert into sighting (
        id, station_id, path, sha256, editor_id, editor_version, version_id, frame_id, picture_sha256, by, person_id
      )
      values ($1, $2, $3, decode($4, 'hex'), $5, $6, $7, $8, $9, $10, $11)
      on conflict (station_id, path) where state = 'asked' do update
      set
        id = excluded.id, sha256 = excluded.sha256, editor_id = excluded.editor_id,
        editor_version = excluded.editor_version, version_id = excluded.version_id, frame_id = excluded.frame_id,
        picture_sha256 = excluded.picture_sha256, by = excluded.by, person_id = excluded.person_id, asked_at = now()
    `,
    [
      one.id,
      one.stationId,
      one.path,
      one.sha,
      one.editorId,
      one.editorVersion,
      one.versionId,
      one.frameId,
      one.picture,
      one.by,
      one.personId,
    ],
  );

export interface Answer {
  state: Exclude<SightingState, 'asked'>;
  reason: string;
  figures: SightingFigures | null;
  result: Buffer | null;
}
/** Whether it was still asked for. */
export async function answerSighting(sql: Sql, id: string, answer: Answer): Promise<boolean> {
  const done = await sql.query(
    `
      update sighting
      set state = $2, reason = $3, figures = $4, result_sha256 = $5, told_at = now()
      where id = $1 and state = 'asked'
    `,
    [id, answer.state, answer.reason, answer.figures && JSON.stringify(answer.figures), answer.result],
  );
  return (done.rowCount ?? 0) > 0;
}

/** Whether it was still asked for. */
export async function deleteAsked(sql: Sql, id: string): Promise<boolean> {
  const done = await sql.query(`delete from sighting where id = $1 and state = 'asked'`, [id]);
  return (done.rowCount ?? 0) > 0;
}
