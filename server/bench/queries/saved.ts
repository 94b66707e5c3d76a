/** Benches and frame sets that are kept under a name. */
import type { Sql } from '../../db/pool';
import { many, maybe } from '../../db/query';

export interface BenchRow {
  id: string;
  name: string;
  state: string;
  shared: boolean;
  person: string;
  person_id: string;
  touched_at: Date;
}

export const benches = async (sql: Sql, person: string): Promise<BenchRow[]> =>
  many<BenchRow>(
    sql,
    `
      select
        b.id, b.name, b.state, b.shared, p.name as person, b.person_id, b.touched_at
      from bench b join person p on p.id = b.person_id
      where b.shared or b.person_id = $1
      order by b.touched_at desc
      limit 200
    `,
    [person],
  );

export const benchById = async (sql: Sql, id: string): Promise<BenchRow | undefined> =>
  maybe<BenchRow>(
    sql,
    `
      select
        b.id, b.name, b.state, b.shared, p.name as person, b.person_id, b.touched_at
      from bench b join person p on p.id = b.person_id
      where b.id = $1
    `,
    [id],
  );

export const saveBench = (
  sql: Sql,
  bench: { id: string; name: string; state: string; shared: boolean; personId: string },
) =>
  sql.query(
    `
      insert into bench (id, name, state, shared, person_id)
      values ($1, $2, $3, $4, $5)
      on conflict (id) do update
      set name = excluded.name, state = excluded.state, shared = excluded.shared, touched_at = now()
    `,
    [bench.id, bench.name, bench.state, bench.shared, bench.personId],
  );

export const removeBench = (sql: Sql, id: string) => sql.query('delete from bench where id = $1', [id]);

export interface SetRow {
  id: string;
  name: string;
  frames: string[];
}

export const frameSets = async (sql: Sql): Promise<SetRow[]> =>
  many<SetRow>(
    sql,
    `
      select
        s.id, s.name,
        coalesce(
          array_agg(m.frame_id::text order by m.position) filter (where m.frame_id is not null), '{}'
        ) as frames
      from frame_set s left join frame_set_member m on m.set_id = s.id
      group by s.id
      order by lower(s.name)
    `,
  );

export async function saveSet(sql: Sql, set: { id: string; name: string; frames: string[] }): Promise<void> {
  await sql.query(
    `
      insert into frame_set (id, name)
      values ($1, $2)
      on conflict (id) do update
      set name = excluded.name
    `,
    [set.id, set.name],
  );
  await sql.query('delete from frame_set_member where set_id = $1', [set.id]);
  await sql.query(
    `
      insert into frame_set_member (set_id, frame_id, position)
      select $1, f, n
      from unnest($2::uuid[]) with ordinality x (f, n)
      where exists (select 1 from frame where id = f)
    `,
    [set.id, set.frames],
  );
}
