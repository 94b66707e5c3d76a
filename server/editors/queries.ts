import type { Descriptor } from '@/core/editor/descriptor';
import type { Sql } from '../db/pool';

export const allDescriptors = async (sql: Sql): Promise<Descriptor[]> => (await sql.query<{ descriptor: Descriptor }>('select descriptor from editor order by id, version')).rows.map((r) => r.descriptor);
export const upsertEditor = (sql: Sql, d: Descriptor) => sql.query('insert into editor (id, version, descriptor) values ($1, $2, $3) on conflict (id, version) do update set descriptor = excluded.descriptor', [d.editor, d.version, JSON.stringify(d)]);
