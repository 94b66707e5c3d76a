/** SQL of the studio's cameras and lenses, of what is held for them, and of requests. */
import type { Descriptor } from '@/core/editor/descriptor';
import type { Sql } from '../db/pool';
import { many, maybe } from '../db/query';

export interface CameraRow {
  id: string;
  maker: string;
  model: string;
  names: string[];
  conversion: string;
  serials: string[];
  mount: string;
  sensor_width: number | null;
  sensor_height: number | null;
}
export interface LensRow {
  id: string;
  maker: string;
  model: string;
  names: string[];
  mount: string;
}
export type RequestState = 'noted' | 'sent' | 'promised' | 'fulfilled' | 'declined';
export interface RequestRow {
  id: string;
  camera_id: string | null;
  lens_id: string | null;
  about: string;
  wanted: string;
  asked_of: string;
  note: string;
  state: RequestState;
  state_at: Date;
  person: string;
  created_at: Date;
}

const camera = 'id, maker, model, names, conversion, serials, mount, sensor_width, sensor_height';
export const cameras = async (sql: Sql): Promise<CameraRow[]> =>
  many<CameraRow>(sql, `select ${camera} from camera order by lower(maker), lower(model), conversion`);
export const cameraById = async (sql: Sql, id: string): Promise<CameraRow | undefined> =>
  maybe<CameraRow>(sql, `select ${camera} from camera where id = $1 for update`, [id]);
export const sameCamera = async (sql: Sql, camera: Omit<CameraRow, 'id'>, but: string): Promise<boolean> =>
  (
    await sql.query(
      `
        select 1
        from camera
        where lower(maker) = lower($1)
          and lower(model) = lower($2)
          and lower(conversion) = lower($3)
          and id <> $4
      `,
      [camera.maker, camera.model, camera.conversion, but],
    )
  ).rowCount === 1;
const cameraValues = (camera: CameraRow) => [
  camera.id,
  camera.maker,
  camera.model,
  camera.names,
  camera.conversion,
  camera.serials,
  camera.mount,
  camera.sensor_width,
  camera.sensor_height,
];
export const insertCamera = (sql: Sql, camera: CameraRow) =>
  sql.query(
    `
      insert into
        camera (id, maker, model, names, conversion, serials, mount, sensor_width, sensor_height)
      values ($1, $2, $3, $4, $5, $6, $7, $8, $9)
    `,
    cameraValues(camera),
  );
export const updateCamera = (sql: Sql, camera: CameraRow) =>
  sql.query(
    `
      update camera
      set
        maker = $2, model = $3, names = $4, conversion = $5, serials = $6, mount = $7,
        sensor_width = $8, sensor_height = $9
      where id = $1
    `,
    cameraValues(camera),
  );
export const removeCamera = async (sql: Sql, id: string): Promise<CameraRow | undefined> =>
  maybe<CameraRow>(sql, `delete from camera where id = $1 returning ${camera}`, [id]);

const lens = 'id, maker, model, names, mount';
export const lenses = async (sql: Sql): Promise<LensRow[]> =>
  many<LensRow>(sql, `select ${lens} from lens order by lower(maker), lower(model), mount`);
export const lensById = async (sql: Sql, id: string): Promise<LensRow | undefined> =>
  maybe<LensRow>(sql, `select ${lens} from lens where id = $1 for update`, [id]);
export const sameLens = async (sql: Sql, lens: Omit<LensRow, 'id'>, but: string): Promise<boolean> =>
  (
    await sql.query(
      `
        select 1
        from lens
        where lower(maker) = lower($1)
          and lower(model) = lower($2)
          and lower(mount) = lower($3)
          and id <> $4
      `,
      [lens.maker, lens.model, lens.mount, but],
    )
  ).rowCount === 1;
export const insertLens = (sql: Sql, lens: LensRow) =>
  sql.query('insert into lens (id, maker, model, names, mount) values ($1, $2, $3, $4, $5)', [
    lens.id,
    lens.maker,
    lens.model,
    lens.names,
    lens.mount,
  ]);
export const updateLens = (sql: Sql, lens: LensRow) =>
  sql.query('update lens set maker = $2, model = $3, names = $4, mount = $5 where id = $1', [
    lens.id,
    lens.maker,
    lens.model,
    lens.names,
    lens.mount,
  ]);
export const removeLens = async (sql: Sql, id: string): Promise<LensRow | undefined> =>
  maybe<LensRow>(sql, `delete from lens where id = $1 returning ${lens}`, [id]);

/** Profiles that name a camera, counted by the cameras that they name and where they are from. */
export const profilesHeld = async (
  sql: Sql,
): Promise<{ cameras: string[]; source: string; held: number; approved: number }[]> =>
  many<{
    cameras: string[];
    source: string;
    held: number;
    approved: number;
  }>(
    sql,
    `
      select
        i.cameras, case when i.supplier <> '' then i.supplier else i.origin end as source,
        count(*)::int as held,
        count(*) filter (
          where i.status = 'approved'
            or exists (
              select 1
              from version v
              where v.item_id = i.id and v.status = 'approved'
            )
        )::int as approved
      from item i
      where i.archived_at is null
        and i.kind in ('camera-profile', 'icc-profile')
        and i.cameras <> '{}'
      group by 1, 2
      order by 3 desc
      limit 20000
    `,
  );
export interface DatabaseHeldRow {
  item: string;
  title: string;
  /** its newest version */ version: string;
  approved: boolean;
  sha256: Buffer;
}
/** The newest version of each lens database. */
export const databasesHeld = async (sql: Sql): Promise<DatabaseHeldRow[]> =>
  many<DatabaseHeldRow>(
    sql,
    `
      select i.id as item, i.title, v.id as version, v.status = 'approved' as approved, v.sha256
      from item i join version v on v.id = i.newest_version_id
      where i.archived_at is null and i.kind = 'lens-database'
      order by lower(i.title)
      limit 200
    `,
  );
/** Who has sent profiles and lens databases before: whom one can ask. */
export const suppliers = async (sql: Sql): Promise<string[]> =>
  (
    await many<{ supplier: string }>(
      sql,
      `
        select distinct supplier
        from item
        where kind in ('camera-profile', 'icc-profile', 'lens-database')
          and supplier <> ''
        order by supplier
        limit 200
      `,
    )
  ).map((r) => r.supplier);
/** Editors, not cards, and how many stations have each. */
export const editorsHere = async (sql: Sql): Promise<{ descriptor: Descriptor; stations: number }[]> =>
  many<{ descriptor: Descriptor; stations: number }>(
    sql,
    `
      select
        e.descriptor,
        (
          select count(distinct s.station_id)::int
          from station_editor s
          where s.editor_id = e.id and s.editor_version = e.version
        ) as stations
      from editor e
      where e.descriptor ->> 'kind' = 'editor'
      order by e.id, e.version
    `,
  );
/** What frames say of camera and lens, each combination once; the usual writing of a name first, capitals last. */
export const seenOnFrames = async (
  sql: Sql,
): Promise<{ camera: string; conversion: string; serial: string; lens: string }[]> =>
  many<{ camera: string; conversion: string; serial: string; lens: string }>(
    sql,
    `
      select camera, conversion, serial, lens
      from frame
      where camera <> '' or lens <> ''
      group by camera, conversion, serial, lens
      order by count(*) desc, camera = upper(camera), camera, conversion, serial, lens
      limit 5000
    `,
  );

export const requests = async (sql: Sql): Promise<RequestRow[]> =>
  many<RequestRow>(
    sql,
    `
      select
        r.id, r.camera_id, r.lens_id, r.about, r.wanted, r.asked_of, r.note, r.state, r.state_at,
        p.name as person, r.created_at
      from gear_request r join person p on p.id = r.person_id
      order by r.state in ('fulfilled', 'declined'), r.created_at desc
      limit 1000
    `,
  );
export const requestById = async (
  sql: Sql,
  id: string,
): Promise<Pick<RequestRow, 'id' | 'about' | 'state' | 'note' | 'asked_of'> | undefined> =>
  maybe<RequestRow>(sql, 'select id, about, state, note, asked_of from gear_request where id = $1 for update', [id]);
export const openRequest = async (sql: Sql, about: string, wanted: string): Promise<boolean> =>
  (
    await sql.query(
      `
        select 1
        from gear_request
        where lower(about) = lower($1)
          and wanted = $2
          and state not in ('fulfilled', 'declined')
        limit 1
      `,
      [about, wanted],
    )
  ).rowCount === 1;
export const insertRequest = (
  sql: Sql,
  request: {
    id: string;
    cameraId: string | null;
    lensId: string | null;
    about: string;
    wanted: string;
    askedOf: string;
    note: string;
    person: string;
  },
) =>
  sql.query(
    `
      insert into gear_request (id, camera_id, lens_id, about, wanted, asked_of, note, person_id)
      values ($1, $2, $3, $4, $5, $6, $7, $8)
    `,
    [
      request.id,
      request.cameraId,
      request.lensId,
      request.about,
      request.wanted,
      request.askedOf,
      request.note,
      request.person,
    ],
  );
export const settleRequest = (sql: Sql, id: string, state: string, note: string, askedOf: string) =>
  sql.query(
    `
      update gear_request
      set
        state_at = case when state = $2 then state_at else now() end, state = $2, note = $3,
        asked_of = $4
      where id = $1
    `,
    [id, state, note, askedOf],
  );

export interface ApprovedItem {
  title: string;
  kind: string;
  format: string;
  cameras: string[];
  scope: { input?: string | null; result?: string | null };
  gray: boolean | null;
  icc_class: string | null;
}
/** Approved items that a photo can take, by title. */
export const approvedItems = (sql: Sql, most: number): Promise<ApprovedItem[]> =>
  many<ApprovedItem>(
    sql,
    `
      select
        i.title, i.kind, i.format, i.cameras, i.scope, is_gray(v.fingerprint) as gray,
        case when i.format = 'icc' then v.facts ->> 'class' end as icc_class
      from item i join version v on v.id = i.newest_version_id
      where i.archived_at is null
        and i.status = 'approved'
        and i.kind in ('look', 'preset', 'camera-profile', 'icc-profile')
      order by i.sorted_by, i.id
      limit $1
    `,
    [most],
  );

/** Items that bear names, as their title or as another that they had. */
export const itemsNamed = (sql: Sql, names: readonly string[]): Promise<{ name: string; id: string }[]> =>
  many<{ name: string; id: string }>(
    sql,
    `
      select distinct on (asked.name) asked.name, i.id
      from unnest($1::text[]) asked (name)
        join item i on i.archived_at is null and (i.title = asked.name or asked.name = any (i.aliases))
      order by asked.name, (i.title = asked.name) desc, i.id
    `,
    [names],
  );
