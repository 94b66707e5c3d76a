/** SQL of frames: pictures to look at, and the camera data that the bench develops. */
import type { Sql } from '../db/pool';
import { many, maybe } from '../db/query';

export interface FrameRow {
  id: string;
  name: string;
  light: string;
  subject: string;
  width: number;
  height: number;
  camera: string;
  serial: string;
  conversion: string;
  lens: string;
  focal: number | null;
  aperture: number | null;
  iso: number | null;
  file_kind: 'rendered' | 'camera data';
  profile: string;
  dynamic_range: 'SDR' | 'HDR' | null;
  result: 'color' | 'monochrome' | null;
  chart_id: string | null;
  chart_corners: [number, number][] | null;
  archived: boolean;
}
/** All frames, those that were put away too. */
export const frames = async (sql: Sql): Promise<FrameRow[]> =>
  many<FrameRow>(sql, {
    name: 'frames',
    text: `
      select
        id, name, light, subject, width, height, camera, serial, conversion, lens, focal, aperture, iso,
        file_kind, profile, dynamic_range, result, chart_id, chart_corners,
        archived_at is not null as archived
      from frame
      order by position, name
    `,
  });

/** Names of those that are judged on. */
export const frameNames = (sql: Sql): Promise<{ id: string; name: string }[]> =>
  many(sql, {
    name: 'names of frames',
    text: 'select id, name from frame where archived_at is null order by position, name',
  });

/** A frame's words, held until the transaction ends. */
export const lockFrame = async (
  sql: Sql,
  id: string,
): Promise<{ name: string; light: string; subject: string; archived_at: Date | null } | undefined> =>
  maybe(sql, 'select name, light, subject, archived_at from frame where id = $1 for no key update', [id]);
export const setWords = (sql: Sql, id: string, words: { name: string; light: string; subject: string }) =>
  sql.query('update frame set name = $2, light = $3, subject = $4 where id = $1', [
    id,
    words.name,
    words.light,
    words.subject,
  ]);
export const setArchived = (sql: Sql, id: string, archived: boolean) =>
  sql.query('update frame set archived_at = case when $2 then now() end where id = $1', [id, archived]);

export const pictureOf = async (
  sql: Sql,
  id: string,
): Promise<{ name: string; sha256: Buffer; width: number; height: number } | undefined> =>
  maybe<{ name: string; sha256: Buffer; width: number; height: number }>(
    sql,
    'select name, sha256, width, height from frame where id = $1',
    [id],
  );
export const cameraDataOf = async (
  sql: Sql,
  id: string,
): Promise<{ camera_data: Buffer | null; name: string } | undefined> =>
  maybe<{ camera_data: Buffer | null; name: string }>(sql, 'select camera_data, name from frame where id = $1', [id]);
export interface SourceRow {
  id: string;
  name: string;
  sha256: Buffer;
  source_sha256: Buffer | null;
  camera_data: Buffer | null;
}
export const sourceOf = async (sql: Sql, id: string): Promise<SourceRow | undefined> =>
  maybe<SourceRow>(sql, 'select id, name, sha256, source_sha256, camera_data from frame where id = $1', [id]);
export const insertComposed = (
  sql: Sql,
  frame: { id: string; name: string; light: string; sha: Buffer; width: number; height: number; position: number },
) =>
  sql.query(
    `
      insert into frame (id, name, light, sha256, width, height, position, dynamic_range, result)
      values ($1, $2, $3, $4, $5, $6, $7, 'SDR', 'color')
    `,
    [frame.id, frame.name, frame.light, frame.sha, frame.width, frame.height, frame.position],
  );

export interface NewFrame {
  id: string;
  name: string;
  light: string;
  subject: string;
  conversion: string;
  sha: Buffer;
  source: Buffer;
  cameraData: Buffer | null;
  fileName: string;
  width: number;
  height: number;
  camera: string;
  serial: string;
  lens: string;
  focal: number | null;
  aperture: number | null;
  iso: number | null;
  taken: string;
  profile: string;
  range: FrameRow['dynamic_range'];
  result: FrameRow['result'];
}
/** Behind the last of the frames. */
export const insertTaken = (sql: Sql, newFrame: NewFrame) =>
  sql.query(
    `
      insert into
        frame (
          id, name, light, subject, conversion, sha256, source_sha256, camera_data, file_kind,
          file_name, width, height, camera, serial, lens, focal, aperture, iso, taken_at, profile,
          dynamic_range, result, position
        )
      values
        (
          $1, $2, $3, $4, $5, $6, $7, $8,
          case when $8::bytea is null then 'rendered' else 'camera data' end, $9, $10, $11, $12, $13,
          $14, $15, $16, $17, $18, $19, $20, $21, (select coalesce(max(position), 0) + 1 from frame)
        )
    `,
    [
      newFrame.id,
      newFrame.name,
      newFrame.light,
      newFrame.subject,
      newFrame.conversion,
      newFrame.sha,
      newFrame.source,
      newFrame.cameraData,
      newFrame.fileName,
      newFrame.width,
      newFrame.height,
      newFrame.camera,
      newFrame.serial,
      newFrame.lens,
      newFrame.focal,
      newFrame.aperture,
      newFrame.iso,
      newFrame.taken,
      newFrame.profile,
      newFrame.range,
      newFrame.result,
    ],
  );

export interface ExportRow {
  id: string;
  frame_id: string;
  label: string;
}
export const exportsOfFrames = async (sql: Sql): Promise<ExportRow[]> =>
  many<ExportRow>(
    sql,
    `
      select id, frame_id, label
      from frame_export
      order by lower(label), created_at
      limit 5000
    `,
  );
export const putExport = (
  sql: Sql,
  exported: { id: string; frame: string; label: string; sha: Buffer; width: number; height: number; person: string },
) =>
  sql.query(
    `
      insert into frame_export (id, frame_id, label, sha256, width, height, person_id)
      values ($1, $2, $3, $4, $5, $6, $7)
      on conflict (frame_id, lower(label)) do update
      set
        id = excluded.id, label = excluded.label, sha256 = excluded.sha256, width = excluded.width,
        height = excluded.height, person_id = excluded.person_id, created_at = now()
    `,
    [exported.id, exported.frame, exported.label, exported.sha, exported.width, exported.height, exported.person],
  );
export const removeExport = async (sql: Sql, id: string): Promise<{ frame_id: string; label: string } | undefined> =>
  maybe<{ frame_id: string; label: string }>(sql, 'delete from frame_export where id = $1 returning frame_id, label', [
    id,
  ]);
export const exportById = async (sql: Sql, id: string): Promise<{ sha256: Buffer; width: number } | undefined> =>
  maybe<{ sha256: Buffer; width: number }>(sql, 'select sha256, width from frame_export where id = $1', [id]);
