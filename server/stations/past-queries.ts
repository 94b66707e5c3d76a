import type { Sql } from '../db/pool';
import { many } from '../db/query';

export interface LayRow {
  path: string;
  editor: string;
  /** null where it was theirs, put back */ title: string | null;
  item_id: string | null;
  number: number | null;
  placed_at: Date;
  /** null while it lies there */ gone_at: Date | null;
  rollout_id: string | null;
  rollout: string | null;
}

/** What of ours lay at a station at a moment, one row a path; "infinity" is now, by whatever clock a station has. */
export const layAt = (sql: Sql, stationId: string, moment: Date | 'infinity'): Promise<LayRow[]> =>
  many<LayRow>(
    sql,
    `
      with lay as (
        select
          p.path, p.editor_id, p.editor_version, p.version_id, i.title, v.number, p.rollout_id, p.placed_at,
          null::timestamptz as gone_at
        from placement p
          left join version v on v.id = p.version_id
          left join item i on i.id = v.item_id
        where p.station_id = $1
          and p.placed_at <= $2
        union all
        select
          past.path, past.editor_id, past.editor_version, past.version_id, past.title, past.number, past.rollout_id,
          past.placed_at, past.gone_at
        from placement_past past
        where past.station_id = $1
          and past.placed_at <= $2
          and past.gone_at > $2
      )
      -- clocks of stations differ: of two that overlap, the later counts
      select distinct on (lay.path)
        lay.path, coalesce(e.descriptor ->> 'title', lay.editor_id) as editor, lay.title, v.item_id, lay.number,
        lay.placed_at, lay.gone_at, r.id as rollout_id, r.title as rollout
      from lay
        left join version v on v.id = lay.version_id
        left join editor e on e.id = lay.editor_id and e.version = lay.editor_version
        left join rollout r on r.id = lay.rollout_id
      order by lay.path, lay.placed_at desc
    `,
    [stationId, moment],
  );

export interface ChangeRow {
  rollout_id: string;
  title: string;
  at: Date;
  put: number;
  removed: number;
  /** it took another back */ undoes: boolean;
  person: string;
}

/** Rollouts that changed something at a station, the latest first. */
export const changesAt = (sql: Sql, stationId: string, most: number): Promise<ChangeRow[]> =>
  many<ChangeRow>(
    sql,
    `
      select
        r.id as rollout_id, r.title, max(s.settled_at) as at,
        count(*) filter (where s.do_what = 'put')::int as put,
        count(*) filter (where s.do_what = 'remove')::int as removed,
        r.undoes is not null as undoes, p.name as person
      from rollout_step s
        join rollout r on r.id = s.rollout_id
        join person p on p.id = r.person_id
      where s.station_id = $1
        and s.outcome = 'done'
      group by r.id, p.name
      order by at desc, r.id desc
      limit $2
    `,
    [stationId, most],
  );
