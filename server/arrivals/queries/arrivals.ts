/** Arrivals: what came in, and how far it is. */
import type { ItemSource } from '@/core/item/fields';
import type { Sql } from '../../db/pool';
import { many, maybe } from '../../db/query';

export interface ProblemText {
  code: string;
  message: string;
  where: string;
  remedy: string;
}

export type ArrivalStatus = 'arriving' | 'reading' | 'ready' | 'accepted' | 'failed' | 'discarded';

export type Source = ItemSource;

export interface ArrivalRow {
  id: string;
  name: string;
  status: ArrivalStatus;
  error: ProblemText | null;
  job_id: string | null;
  created_at: Date;
  settled_at: Date | null;
  person: string | null;
  person_id: string | null;
  size: number;
  files: number;
  arrived: number;
  station_id: string | null;
  station: string | null;
  source: Source;
  licence_id: string | null;
  previous_pack_id: string | null;
  made_shelf_id: string | null;
  made_licence_id: string | null;
}

export const insertArrival = (
  sql: Sql,
  arrival: { id: string; name: string; personId: string | null; stationId?: string | null },
) =>
  sql.query(
    `
      insert into arrival (id, name, status, person_id, station_id)
      values ($1, $2, 'arriving', $3, $4)
    `,
    [arrival.id, arrival.name, arrival.personId, arrival.stationId ?? null],
  );

export const arrivalJob = (sql: Sql, id: string, jobId: string) =>
  sql.query(`update arrival set job_id = $2, status = 'reading' where id = $1`, [id, jobId]);

export const arrivalStatus = (sql: Sql, id: string, status: ArrivalStatus, error: unknown = null) =>
  sql.query(
    `
      update arrival
      set
        status = $2, error = $3, settled_at = case when $2 in ('accepted', 'discarded') then now() end
      where id = $1
    `,
    [id, status, error ? JSON.stringify(error) : null],
  );

export const arrivalSource = (sql: Sql, id: string, source: unknown, licenceId: string | null) =>
  sql.query('update arrival set source = $2, licence_id = $3 where id = $1', [id, JSON.stringify(source), licenceId]);

/** What an arrival made on its way, to be taken back with it. */
export const arrivalMade = (sql: Sql, id: string, shelfId: string | null, licenceId: string | null) =>
  sql.query('update arrival set made_shelf_id = $2, made_licence_id = $3 where id = $1', [id, shelfId, licenceId]);

export const arrivalPrevious = (sql: Sql, id: string, packId: string | null) =>
  sql.query('update arrival set previous_pack_id = $2 where id = $1', [id, packId]);

const arrivalColumns =
  'i.id, i.name, i.status, i.error, i.job_id, i.created_at, i.settled_at, i.person_id, p.name as person, i.station_id, st.name as station, i.source, i.licence_id, i.previous_pack_id, i.made_shelf_id, i.made_licence_id, f.size, f.files, f.arrived';

const arrivalFrom =
  'from arrival i left join person p on p.id = i.person_id left join station st on st.id = i.station_id left join lateral (select coalesce(sum(size), 0)::bigint as size, count(*)::int as files, count(sha256)::int as arrived from arrival_file where arrival_id = i.id) f on true';

export const arrivalById = async (sql: Sql, id: string, lock = false): Promise<ArrivalRow | undefined> =>
  maybe<ArrivalRow>(sql, `select ${arrivalColumns} ${arrivalFrom} where i.id = $1 ${lock ? 'for update of i' : ''}`, [
    id,
  ]);

export type ArrivalWithCounts = ArrivalRow & { counts: Record<string, number> };

/** For so long can a discarded arrival be brought back, in days; its contents are kept no longer. */
export const DISCARDED_DAYS = 30;

/** The newest arrivals; or those that were discarded and can still be brought back. */
export const arrivals = async (sql: Sql, most: number, discarded = false): Promise<ArrivalWithCounts[]> =>
  many<ArrivalWithCounts>(
    sql,
    `
      select
        ${arrivalColumns},
        coalesce(
          (
            select jsonb_object_agg(o.outcome, o.n)
            from (
              select outcome, count(*)::int as n
              from arrival_entry e
              where e.arrival_id = i.id
              group by 1
            ) o
          ),
          '{}'
        ) as counts ${arrivalFrom}
      where (i.status = 'discarded') = $2
        and (
          not $2
          or (i.settled_at > now() - make_interval(days => $3)
          and f.arrived = f.files)
        )
      order by coalesce(case when $2 then i.settled_at end, i.created_at) desc
      limit $1
    `,
    [most, discarded, DISCARDED_DAYS],
  );
