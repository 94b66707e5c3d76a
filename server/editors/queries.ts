import type { Descriptor } from '@/core/editor/descriptor';
import type { Sql } from '../db/pool';

export const allDescriptors = async (sql: Sql): Promise<Descriptor[]> => (await sql.query<{ descriptor: Descriptor }>('select descriptor from editor order by id, version')).rows.map((r) => r.descriptor);
export const upsertEditor = (sql: Sql, d: Descriptor) => sql.query('insert into editor (id, version, descriptor) values ($1, $2, $3) on conflict (id, version) do update set descriptor = excluded.descriptor', [d.editor, d.version, JSON.stringify(d)]);
/** Every descriptor that was brought in stays; the newest counts. */
export const insertRevision = (sql: Sql, d: Descriptor, personId: string | null) => sql.query('insert into editor_revision (editor_id, editor_version, n, descriptor, person_id) values ($1, $2, (select coalesce(max(n), 0) + 1 from editor_revision where editor_id = $1 and editor_version = $2), $3, $4)', [d.editor, d.version, JSON.stringify(d), personId]);
