import type { Descriptor } from '@/core/editor/descriptor';
import type { Sql } from '../db/pool';
import { many, maybe } from '../db/query';

export const allDescriptors = async (sql: Sql): Promise<Descriptor[]> =>
  (await many<{ descriptor: Descriptor }>(sql, 'select descriptor from editor order by id, version')).map(
    (r) => r.descriptor,
  );
export const upsertEditor = (sql: Sql, descriptor: Descriptor) =>
  sql.query(
    `
      insert into editor (id, version, descriptor)
      values ($1, $2, $3)
      on conflict (id, version) do update
      set descriptor = excluded.descriptor
    `,
    [descriptor.editor, descriptor.version, JSON.stringify(descriptor)],
  );
/** Every descriptor that was brought in stays; the newest counts. */
export const insertRevision = (sql: Sql, descriptor: Descriptor, personId: string | null) =>
  sql.query(
    `
      insert into editor_revision (editor_id, editor_version, n, descriptor, person_id)
      values
        (
          $1, $2,
          (
            select coalesce(max(n), 0) + 1
            from editor_revision
            where editor_id = $1 and editor_version = $2
          ),
          $3, $4
        )
    `,
    [descriptor.editor, descriptor.version, JSON.stringify(descriptor), personId],
  );
export interface EditorRow {
  id: string;
  version: string;
  descriptor: Descriptor;
  revisions: number;
  changed: Date;
  by: string | null;
  stations: number;
}
export const editorRows = async (sql: Sql): Promise<EditorRow[]> =>
  many<EditorRow>(
    sql,
    `
      select
        e.id, e.version, e.descriptor, r.n as revisions, r.created_at as changed, p.name as by,
        (
          select count(distinct station_id)::int
          from station_editor s
          where s.editor_id = e.id and s.editor_version = e.version
        ) as stations
      from editor e
        left join lateral (
          select n, created_at, person_id
          from editor_revision x
          where x.editor_id = e.id and x.editor_version = e.version
          order by n desc
          limit 1
        ) r on true
        left join person p on p.id = r.person_id
      order by e.id, e.version
    `,
  );
export const revision = async (
  sql: Sql,
  id: string,
  version: string,
  number: number | null,
): Promise<Descriptor | undefined> =>
  (
    await maybe<{ descriptor: Descriptor }>(
      sql,
      `
        select descriptor
        from editor_revision
        where editor_id = $1
          and editor_version = $2
          and ($3::int is null or n = $3)
        order by n desc
        limit 1
      `,
      [id, version, number],
    )
  )?.descriptor;
