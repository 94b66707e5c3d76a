/** SQL of what editors' own lists gained and lost. */
import type { ListingChange } from '@/core/sync/listing-change';
import type { Listing } from '@/core/sync/protocol';
import type { Sql } from '../db/pool';
import { many, maybe } from '../db/query';

/** An editor at a station. */
export interface EditorAt {
  station_id: string;
  editor_id: string;
  editor_version: string;
}

/** What it told the last time; null where it never has. */
export const listingBefore = async (sql: Sql, at: EditorAt): Promise<Listing | null> =>
  (
    await maybe<{ listing: Listing | null }>(
      sql,
      `
        select listing
        from station_editor
        where station_id = $1 and editor_id = $2 and editor_version = $3
        for update
      `,
      [at.station_id, at.editor_id, at.editor_version],
    )
  )?.listing ?? null;

export const insertListingChange = (sql: Sql, at: EditorAt, change: ListingChange) =>
  sql.query(
    `
      insert into listing_change (
        station_id, editor_id, editor_version, before, after, came, gone, refused, more
      )
      values ($1, $2, $3, $4, $5, $6, $7, $8, $9)
    `,
    [
      at.station_id,
      at.editor_id,
      at.editor_version,
      change.before,
      change.after,
      JSON.stringify(change.came),
      JSON.stringify(change.gone),
      JSON.stringify(change.refused),
      change.more,
    ],
  );

export interface ListingChangeRow extends EditorAt, ListingChange {
  told_at: Date;
  title: string;
}
const COLUMNS = `
  c.station_id, c.editor_id, c.editor_version, c.told_at, c.before, c.after, c.came, c.gone, c.refused, c.more,
  coalesce(e.descriptor ->> 'title', c.editor_id) as title
`;
const FROM = 'listing_change c left join editor e on e.id = c.editor_id and e.version = c.editor_version';

/** So many changes of a station belong to a rollout at most. */
const MOST_OF_ROLLOUT = 40;

/** What came of a rollout: changes at its stations since it was confirmed, until another was confirmed there; the oldest first. */
export const listingChangesOf = (sql: Sql, rolloutId: string): Promise<ListingChangeRow[]> =>
  many<ListingChangeRow>(
    sql,
    `
      with own as (
        select distinct s.station_id, r.confirmed_at as since
        from rollout r join rollout_step s on s.rollout_id = r.id
        where r.id = $1 and r.confirmed_at is not null and s.do_what <> 'none'
      ), span as (
        select
          own.station_id, own.since,
          (
            select min(next.confirmed_at)
            from rollout_step s join rollout next on next.id = s.rollout_id
            where s.station_id = own.station_id and s.do_what <> 'none' and next.confirmed_at > own.since
          ) as until
        from own
      ), ranked as (
        select ${COLUMNS}, c.id, row_number() over (partition by c.station_id order by c.id) as place
        from span
          join ${FROM} on c.station_id = span.station_id and c.told_at >= span.since
            and c.told_at < coalesce(span.until, 'infinity')
      )
      select * from ranked where place <= $2 order by id
    `,
    [rolloutId, MOST_OF_ROLLOUT],
  );

/** The latest changes at a station, the newest first. */
export const listingChangesAt = (
  sql: Sql,
  stationId: string,
  until: Date | 'infinity',
  most: number,
): Promise<ListingChangeRow[]> =>
  many<ListingChangeRow>(
    sql,
    `
      select ${COLUMNS}
      from ${FROM}
      where c.station_id = $1 and c.told_at < $2
      order by c.told_at desc, c.id desc
      limit $3
    `,
    [stationId, until, most],
  );
