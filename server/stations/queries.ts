import type { Descriptor } from '@/core/editor/descriptor';
import type { System } from '@/core/editor/place-schema';
import type { UsedCamera } from '@/core/records/used-there';
import type { AgentRun, Doubled } from '@/core/sync/agent-runs';
import type { LeftOut } from '@/core/sync/left-out';
import type { FilesPart, InventoryFile, Listing } from '@/core/sync/protocol';
import type { Sql } from '../db/pool';
import { many, maybe, one } from '../db/query';

export interface StationRow {
  id: string;
  name: string;
  kind: 'workstation' | 'card';
  system: System;
  person: string;
  host_id: string | null;
  enrolled: boolean;
  agent_version: string;
  last_report_at: Date | null;
  digest: string;
  position: number;
  left_out: LeftOut;
  agent_runs: AgentRun[];
  doubled: Doubled | null;
  retired_at: Date | null;
  groups: string[];
  /** editors that its agent has found there, as "editor@version" */ found: string[];
  /** why its agent could not take the program that ships; '' where it could */ update_fault: string;
}
export interface StationEditorRow {
  station_id: string;
  editor_id: string;
  editor_version: string;
  running: boolean;
  listing: Listing | null;
  listed_at: Date | null;
  descriptor: Descriptor;
}

const columns =
  'id, name, kind, system, person, host_id, token_sha256 is not null as enrolled, agent_version, last_report_at, digest, position, left_out, agent_runs, doubled, retired_at, groups, update_fault, found';

export const stations = async (sql: Sql): Promise<StationRow[]> =>
  many<StationRow>(sql, `select ${columns} from station order by position, name`);
export const stationById = async (sql: Sql, id: string): Promise<StationRow | undefined> =>
  maybe<StationRow>(sql, `select ${columns} from station where id = $1`, [id]);
export const stationsByIds = (sql: Sql, ids: readonly string[]): Promise<StationRow[]> =>
  many<StationRow>(sql, `select ${columns} from station where id = any ($1::uuid[]) order by position, name`, [ids]);

/** Words are looked for in the name of a station and of who works there; what is empty is not asked for. */
export interface StationsAsked {
  words: string;
  system: string;
  /** such as oxbow@2 */ editor: string;
  group: string;
}
const asAsked = `
  retired_at is null
    and ($1 = '' or position(lower($1) in lower(name || ' ' || person)) > 0)
    and ($2 = '' or (kind = 'workstation' and system = $2))
    and (
      $3 = ''
      or exists (
        select
        from station_editor se
        where se.station_id = station.id
          and se.editor_id || '@' || se.editor_version = $3
      )
    )
    and ($4 = '' or groups @> array[$4])
`;
const askedValues = ({ words, system, editor, group }: StationsAsked): string[] => [words, system, editor, group];

export const countStations = async (sql: Sql, asked: StationsAsked): Promise<number> =>
  (await one<{ n: number }>(sql, `select count(*)::int as n from station where ${asAsked}`, askedValues(asked))).n;

export const stationsFrom = (sql: Sql, asked: StationsAsked, from: number, most: number): Promise<StationRow[]> =>
  many<StationRow>(
    sql,
    `
      select ${columns}
      from station
      where ${asAsked}
      order by position, name
      offset $5
      limit $6
    `,
    [...askedValues(asked), from, most],
  );

export const stationIds = async (sql: Sql, asked: StationsAsked): Promise<string[]> =>
  (
    await many<{ id: string }>(
      sql,
      `select id from station where ${asAsked} order by position, name`,
      askedValues(asked),
    )
  ).map(({ id }) => id);

/** Groups of stations in use. */
export const groupsInUse = async (sql: Sql): Promise<string[]> =>
  (
    await many<{ name: string }>(
      sql,
      `
        select distinct g.name
        from station s, unnest(s.groups) as g (name)
        where s.retired_at is null
        order by g.name
      `,
    )
  ).map(({ name }) => name);

/** Editors that stand on any station in use. */
export const editorsInUse = (sql: Sql): Promise<{ id: string; title: string }[]> =>
  many(
    sql,
    `
      select distinct e.id || '@' || e.version as id, e.descriptor ->> 'title' as title
      from station_editor se
        join station s on s.id = se.station_id
        join editor e on e.id = se.editor_id and e.version = se.editor_version
      where s.retired_at is null
      order by title
    `,
  );

export const retiredStations = (sql: Sql): Promise<StationRow[]> =>
  many<StationRow>(sql, `select ${columns} from station where retired_at is not null order by retired_at desc, name`);

/** The cards in the reader of a station go with it, and come back with it. */
export const retireCards = (sql: Sql, host: string, retired: boolean) =>
  sql.query(
    `
      update station
      set retired_at = case when $2 then coalesce(retired_at, now()) end
      where host_id = $1
    `,
    [host, retired],
  );

export const updateStation = (
  sql: Sql,
  id: string,
  station: { name: string; person: string; retired: boolean; groups?: string[] },
) =>
  sql.query(
    `
      update station
      set
        name = $2, person = $3,
        retired_at = case when $4 then coalesce(retired_at, now()) end,
        token_sha256 = case when not $4 then token_sha256 end,
        groups = coalesce($5::text[], groups)
      where id = $1
    `,
    [id, station.name, station.person, station.retired, station.groups ?? null],
  );
/** How many there are of all; silent is a workstation whose agent has not reported for a day. */
export const fleetCounts = (sql: Sql): Promise<{ workstations: number; cards: number; silent: number }> =>
  one(
    sql,
    `
      select
        count(*) filter (where kind = 'workstation')::int as workstations,
        count(*) filter (where kind = 'card')::int as cards,
        count(*) filter (
          where kind = 'workstation'
            and last_report_at < now() - interval '1 day'
        )::int as silent
      from station
      where retired_at is null
    `,
  );
export interface StationChoice {
  id: string;
  name: string;
  groups: string[];
  editors: string[];
}
export const stationChoices = (sql: Sql): Promise<StationChoice[]> =>
  many<StationChoice>(
    sql,
    `
      select
        s.id, s.name, s.groups,
        coalesce(
          array_agg(e.descriptor ->> 'title' order by e.id, e.version) filter (where e.id is not null), '{}'
        ) as editors
      from station s
        left join station_editor se on se.station_id = s.id
        left join editor e on e.id = se.editor_id and e.version = se.editor_version
      where s.retired_at is null
      group by s.id
      order by s.position, s.name
    `,
  );
/** What lies where something of ours was put, under that very path. */
export const lyingWherePlaced = (
  sql: Sql,
  stationIds: readonly string[],
): Promise<{ station_id: string; path: string; sha: string }[]> =>
  many(
    sql,
    `
      select p.station_id, i.path, encode(i.sha256, 'hex') as sha
      from placement p
        join station s on s.id = p.station_id
        join inventory i on i.station_id = coalesce(s.host_id, s.id) and i.path = p.path
      where p.station_id = any ($1::uuid[])
    `,
    [stationIds],
  );
export const stationByName = async (sql: Sql, name: string): Promise<StationRow | undefined> =>
  maybe<StationRow>(sql, `select ${columns} from station where name = $1`, [name]);
export const stationByToken = async (sql: Sql, token: Buffer): Promise<StationRow | undefined> =>
  maybe<StationRow>(sql, `select ${columns} from station where token_sha256 = $1`, [token]);
export const insertStation = (
  sql: Sql,
  station: {
    id: string;
    name: string;
    kind: string;
    system: string;
    person: string;
    hostId: string | null;
    position: number;
  },
) =>
  sql.query(
    `
      insert into station (id, name, kind, system, person, host_id, position)
      values ($1, $2, $3, $4, $5, $6, $7)
    `,
    [station.id, station.name, station.kind, station.system, station.person, station.hostId, station.position],
  );
export const setCode = (sql: Sql, id: string, code: Buffer, minutes: number) =>
  sql.query(
    `
      update station
      set enrol_code_sha256 = $2, enrol_expires_at = now() + make_interval(mins => $3)
      where id = $1
    `,
    [id, code, minutes],
  );
export const dropToken = (sql: Sql, id: string) =>
  sql.query(
    `
      update station
      set token_sha256 = null, enrol_code_sha256 = null, enrol_expires_at = null, agent_runs = '[]', doubled = null
      where id = $1
    `,
    [id],
  );
/** Takes a code, once: gives the station's id when it is right and in time. */
export const takeCode = async (
  sql: Sql,
  code: Buffer,
  token: Buffer,
  agentVersion: string,
): Promise<StationRow | undefined> =>
  maybe<StationRow>(
    sql,
    `
      update station
      set
        token_sha256 = $2, enrol_code_sha256 = null, enrol_expires_at = null, agent_version = $3,
        digest = '', agent_runs = '[]', doubled = null
      where enrol_code_sha256 = $1 and enrol_expires_at > now()
      returning ${columns}
    `,
    [code, token, agentVersion],
  );
export const insertStationEditor = (sql: Sql, stationId: string, editor: string, version: string) =>
  sql.query(
    `
      insert into station_editor (station_id, editor_id, editor_version)
      values ($1, $2, $3)
      on conflict do nothing
    `,
    [stationId, editor, version],
  );

/** How many files of rollouts wait to be written for an editor at a station. */
export const waitingAt = async (sql: Sql, stationId: string, editor: string, version: string): Promise<number> =>
  (
    await one<{ n: number }>(
      sql,
      `
        select count(*)::int as n
        from rollout_step s join rollout r on r.id = s.rollout_id
        where s.station_id = $1
          and s.editor_id = $2
          and s.editor_version = $3
          and s.outcome is null
          and s.do_what <> 'none'
          and r.status = 'confirmed'
      `,
      [stationId, editor, version],
    )
  ).n;

/** The editor is there no more; answers how many files of ours are looked after no longer. */
export const dropStationEditor = async (
  sql: Sql,
  stationId: string,
  editor: string,
  version: string,
): Promise<number> => {
  const of = [stationId, editor, version];
  const dropped = await sql.query(
    'delete from placement where station_id = $1 and editor_id = $2 and editor_version = $3',
    of,
  );
  await sql.query('delete from station_editor where station_id = $1 and editor_id = $2 and editor_version = $3', of);
  return dropped.rowCount ?? 0;
};

/** Files of ours are looked after for another editor there, which reads the same folder. */
export const handOverPlacements = (
  sql: Sql,
  stationId: string,
  from: { editor: string; version: string },
  to: { editor: string; version: string; place: string; paths: readonly string[] },
) =>
  sql.query(
    `
      update placement
      set editor_id = $4, editor_version = $5, place = $6
      where station_id = $1 and editor_id = $2 and editor_version = $3 and path = any ($7::text[])
    `,
    [stationId, from.editor, from.version, to.editor, to.version, to.place, to.paths],
  );

/** Editors of a station, or of all; with their descriptors. */
export const stationEditors = async (sql: Sql, stationIds: string[] | null): Promise<StationEditorRow[]> =>
  many<StationEditorRow>(
    sql,
    `
      select
        se.station_id, se.editor_id, se.editor_version, se.running, se.listing, se.listed_at,
        e.descriptor
      from station_editor se join editor e on e.id = se.editor_id and e.version = se.editor_version
      where $1::uuid[] is null or se.station_id = any($1)
      order by se.editor_id, se.editor_version
    `,
    [stationIds],
  );
export const updateListing = (
  sql: Sql,
  stationId: string,
  editor: string,
  version: string,
  running: boolean,
  listing: Listing | null,
  at: string | null,
) =>
  sql.query(
    `
      update station_editor
      set
        running = $4, listing = coalesce($5, listing),
        listed_at = coalesce($6::timestamptz, listed_at)
      where station_id = $1
        and editor_id = $2
        and editor_version = $3
    `,
    [stationId, editor, version, running, listing ? JSON.stringify(listing) : null, at],
  );

/** What an agent says of itself with each report. */
export interface AgentSaid {
  version: string;
  updateFault: string;
}
export const touchStation = (sql: Sql, id: string, { version, updateFault }: AgentSaid) =>
  sql.query('update station set last_report_at = now(), agent_version = $2, update_fault = $3 where id = $1', [
    id,
    version,
    updateFault,
  ]);
export const setFound = (sql: Sql, id: string, found: readonly string[]) =>
  sql.query('update station set found = $2 where id = $1', [id, found]);
export const touchWithRuns = (
  sql: Sql,
  id: string,
  { version, updateFault }: AgentSaid,
  runs: AgentRun[],
  doubled: Doubled | null,
) =>
  sql.query(
    `
      update station
      set
        last_report_at = now(), agent_version = $2, update_fault = $3, agent_runs = $4,
        doubled = coalesce($5, doubled)
      where id = $1
    `,
    [id, version, updateFault, JSON.stringify(runs), doubled && JSON.stringify(doubled)],
  );
/** An editor at a station or on a card in its reader, as far as reports of its list need it. */
export interface ReportingEditor {
  station_id: string;
  editor_id: string;
  editor_version: string;
  title: string;
  running: boolean;
  listed_at: Date | null;
}
export const reportingEditors = (sql: Sql, stationId: string): Promise<ReportingEditor[]> =>
  many<ReportingEditor>(
    sql,
    `
      select
        se.station_id, se.editor_id, se.editor_version, e.descriptor ->> 'title' as title, se.running,
        se.listed_at
      from station s
        join station_editor se on se.station_id = s.id
        join editor e on e.id = se.editor_id and e.version = se.editor_version
      where s.id = $1 or s.host_id = $1
    `,
    [stationId],
  );
export const setDigest = (sql: Sql, id: string, digest: string, leftOut: LeftOut) =>
  sql.query('update station set digest = $2, left_out = $3 where id = $1', [id, digest, JSON.stringify(leftOut)]);
/** Whether something of that plan still waits for this station to do it. */
export const hasStepsOf = async (sql: Sql, stationId: string, planId: string): Promise<boolean> =>
  (
    await one<{ has: boolean }>(
      sql,
      `
        select exists (
          select 1
          from rollout r join rollout_step s on s.rollout_id = r.id
          where r.id = $2
            and s.agent_station_id = $1
            and s.outcome is null
            and s.do_what <> 'none'
            and r.status = 'confirmed'
        ) as has
      `,
      [stationId, planId],
    )
  ).has;
/** Makes the inventory what was reported, by differences. */
export const replaceInventory = async (
  sql: Sql,
  stationId: string,
  paths: string[],
  sizes: number[],
  shas: string[],
): Promise<number> => {
  const gone = await sql.query(
    'delete from inventory where station_id = $1 and path not in (select unnest($2::text[]))',
    [stationId, paths],
  );
  const came = await sql.query(
    `
      insert into inventory (station_id, path, size, sha256)
      select $1, p, s, decode(h, 'hex')
      from unnest($2::text[], $3::bigint[], $4::text[]) as r (p, s, h)
      on conflict (station_id, path) do update
      set size = excluded.size, sha256 = excluded.sha256
      where inventory.sha256 <> excluded.sha256
    `,
    [stationId, paths, sizes, shas],
  );
  return (gone.rowCount ?? 0) + (came.rowCount ?? 0);
};
interface PartRow {
  files: InventoryFile[];
  left_out: LeftOut;
}

export async function keepPart(sql: Sql, stationId: string, part: FilesPart & { leftOut: LeftOut }): Promise<void> {
  await sql.query(
    `
      insert into inventory_part (station_id, digest, part, files, left_out)
      values ($1, $2, $3, $4, $5)
      on conflict (station_id, digest, part) do update
      set files = excluded.files, left_out = excluded.left_out, came_at = now()
    `,
    [stationId, part.digest, part.part, JSON.stringify(part.files), JSON.stringify(part.leftOut)],
  );
}

/** The first `count` parts of that state, in order. */
export const partsOf = (sql: Sql, stationId: string, digest: string, count: number): Promise<PartRow[]> =>
  many<PartRow>(
    sql,
    `
      select files, left_out
      from inventory_part
      where station_id = $1 and digest = $2 and part < $3
      order by part
    `,
    [stationId, digest, count],
  );

export const dropOtherParts = (sql: Sql, stationId: string, digest: string) =>
  sql.query('delete from inventory_part where station_id = $1 and digest <> $2', [stationId, digest]);

export const dropParts = (sql: Sql, stationId: string) =>
  sql.query('delete from inventory_part where station_id = $1', [stationId]);

export const inventoryOf = async (
  sql: Sql,
  stationId: string,
): Promise<{ path: string; size: number; sha: string }[]> =>
  many<{ path: string; size: number; sha: string }>(
    sql,
    `
      select path, size, encode(sha256, 'hex') as sha
      from inventory
      where station_id = $1
      order by path
    `,
    [stationId],
  );

export const replaceIndexes = async (sql: Sql, stationId: string, paths: string[], texts: string[]): Promise<void> => {
  await sql.query('delete from station_index where station_id = $1 and path <> all ($2::text[])', [stationId, paths]);
  await sql.query(
    `
      insert into station_index (station_id, path, text)
      select $1, p, t
      from unnest($2::text[], $3::text[]) as r (p, t)
      on conflict (station_id, path) do update
      set text = excluded.text
      where station_index.text <> excluded.text
    `,
    [stationId, paths, texts],
  );
};
export const indexesOf = (sql: Sql, stationId: string): Promise<{ path: string; text: string }[]> =>
  many(sql, {
    name: 'indexes of a station',
    text: 'select path, text from station_index where station_id = $1',
    values: [stationId],
  });
/** An index as its agent told it; null where there is none, or one that cannot be told. */
export const indexText = async (sql: Sql, stationId: string, path: string): Promise<string | null> =>
  (
    await maybe<{ text: string }>(sql, 'select text from station_index where station_id = $1 and path = $2', [
      stationId,
      path,
    ])
  )?.text ?? null;

export interface PlacementRow {
  station_id: string;
  path: string;
  editor_id: string;
  editor_version: string;
  place: string;
  version_id: string | null;
  rendition_id: string | null;
  sha: string;
  placed_at: Date;
  title: string | null;
  number: number | null;
  item_id: string | null;
  variant: string | null;
  /** the number of a newer approved version of the same form */ newer: number | null;
  kind: string | null;
  /** why it is not to be used any more, in words; null while it is */ withdrawn: string | null;
  points: number | null;
  residual: { maxDeltaE: number; p95DeltaE: number; meanDeltaE: number } | null;
}
const placementColumns = `
  p.station_id, p.path, p.editor_id, p.editor_version, p.place, p.version_id, p.rendition_id,
  encode(p.sha256, 'hex') as sha, p.placed_at, i.title, v.number, v.variant, i.id as item_id, i.kind,
  (
    select max(n.number)
    from version n
    where n.item_id = v.item_id
      and n.variant = v.variant
      and n.status = 'approved'
      and n.number > v.number
  ) as newer,
  case
    when i.archived_at is not null then 'its item is archived'
    when v.status = 'retired' then 'version ' || v.number || ' was retired'
    when l.ends_on < current_date and l.at_end = 'remove'
      then 'its licence ended on ' || to_char(l.ends_on, 'YYYY-MM-DD') || ', and asks that it is removed'
  end as withdrawn,
  r.points, r.residual
`;
export const placements = async (sql: Sql, stationIds: string[] | null): Promise<PlacementRow[]> =>
  many<PlacementRow>(
    sql,
    `
      select
        ${placementColumns}
      from placement p
        left join version v on v.id = p.version_id
        left join item i on i.id = v.item_id
        left join licence l on l.id = i.licence_id
        left join rendition r on r.id = p.rendition_id
      where $1::uuid[] is null or p.station_id = any($1)
      order by p.path
    `,
    [stationIds],
  );
/** Where something of ours lies at these stations, and the editors' own lists there that we have written. */
export const placedPaths = (sql: Sql, stationIds: readonly string[]): Promise<{ station_id: string; path: string }[]> =>
  many(
    sql,
    `
      select station_id, path
      from placement
      where station_id = any ($1::uuid[]) and version_id is not null
      union
      select station_id, path
      from editor_list_base
      where station_id = any ($1::uuid[])
      order by path
    `,
    [stationIds],
  );

export interface StillListed {
  station_id: string;
  editor_id: string;
  editor_version: string;
  path: string;
}
/** What we took away there in the last month and what does not lie there any more, though its editor still lists it. */
export const stillListed = (sql: Sql, stationIds: readonly string[]): Promise<StillListed[]> =>
  many<StillListed>(sql, {
    name: 'still listed',
    text: `
      select distinct s.station_id, s.editor_id, s.editor_version, s.path
      from rollout_step s
        join station_editor se on se.station_id = s.station_id
        and se.editor_id = s.editor_id
        and se.editor_version = s.editor_version
      where s.station_id = any ($1::uuid[])
        and s.do_what = 'remove'
        and s.outcome = 'done'
        and s.settled_at > now() - interval '30 days'
        and se.listing -> 'listed' @> jsonb_build_array(jsonb_build_object('path', s.path))
        and not exists (
          select 1
          from inventory i
          where i.station_id = s.agent_station_id and i.path = s.path
        )
    `,
    values: [stationIds],
  });

/** Placements of these items at these stations. */
export const placementsOfItems = (
  sql: Sql,
  stationIds: readonly string[],
  items: readonly string[],
): Promise<PlacementRow[]> =>
  many<PlacementRow>(
    sql,
    `
      select
        ${placementColumns}
      from placement p
        join version v on v.id = p.version_id
        join item i on i.id = v.item_id
        left join licence l on l.id = i.licence_id
        left join rendition r on r.id = p.rendition_id
      where i.id = any ($2::uuid[]) and p.station_id = any ($1::uuid[])
      order by p.path
    `,
    [stationIds, items],
  );
export interface LyingRow {
  station_id: string;
  path: string;
  sha: string;
  /** Etagere looks after it, at the station or at a card in its reader */ ours: boolean;
}

/** Files whose paths begin so, case aside, at the station named in the same place of the other list. */
export const inventoryUnder = (
  sql: Sql,
  stationIds: readonly string[],
  prefixes: readonly string[],
): Promise<LyingRow[]> =>
  many(
    sql,
    `
      select distinct
        i.station_id, i.path, encode(i.sha256, 'hex') as sha,
        exists (
          select 1
          from placement p
          where p.station_id = i.station_id and p.path = i.path
        ) or exists (
          select 1
          from station s join placement p on p.station_id = s.id and p.path = i.path
          where s.host_id = i.station_id
        ) as ours
      from unnest($1::uuid[], $2::text[]) as asked (station_id, prefix)
        -- "offset 0": each prefix is looked up by itself, in the index, rather than all that lies at all stations read
        cross join lateral (
          select f.station_id, f.path, f.sha256
          from inventory f
          where f.station_id = asked.station_id
            and lower(f.path) ~>=~ lower(asked.prefix)
            and lower(f.path) ~<~ (lower(asked.prefix) || chr(1114111))
          offset 0
        ) i
      order by i.path
    `,
    [stationIds, prefixes],
  );
export const putPlacement = (
  sql: Sql,
  placement: {
    stationId: string;
    path: string;
    editorId: string;
    editorVersion: string;
    place: string;
    versionId: string | null;
    renditionId: string | null;
    sha: Buffer;
    rolloutId: string;
    at: string;
  },
) =>
  sql.query(
    `
      insert into
        placement (
          station_id, path, editor_id, editor_version, place, version_id, rendition_id, sha256,
          rollout_id, placed_at
        )
      values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)
      on conflict (station_id, path) do update
      set
        version_id = excluded.version_id, rendition_id = excluded.rendition_id,
        sha256 = excluded.sha256, rollout_id = excluded.rollout_id, placed_at = excluded.placed_at,
        editor_id = excluded.editor_id, editor_version = excluded.editor_version,
        place = excluded.place
    `,
    [
      placement.stationId,
      placement.path,
      placement.editorId,
      placement.editorVersion,
      placement.place,
      placement.versionId,
      placement.renditionId,
      placement.sha,
      placement.rolloutId,
      placement.at,
    ],
  );
/** What lies at these paths of a station's agent, with whether its contents are held. */
export const lyingAtPaths = (
  sql: Sql,
  agentId: string,
  paths: readonly string[],
): Promise<{ path: string; size: number; sha256: Buffer; here: boolean }[]> =>
  many(
    sql,
    `
      select i.path, i.size, i.sha256, exists (select 1 from blob b where b.sha256 = i.sha256) as here
      from inventory i
      where i.station_id = $1
        and i.path = any($2::text[])
      order by i.path
    `,
    [agentId, paths],
  );

export const dropPlacement = (sql: Sql, stationId: string, path: string) =>
  sql.query('delete from placement where station_id = $1 and path = $2', [stationId, path]);

export interface CameraThere extends UsedCamera {
  id: string;
  station_id: string;
}
export const camerasUsedAt = (sql: Sql, stations: readonly string[]): Promise<CameraThere[]> =>
  many<CameraThere>(
    sql,
    `
      select sc.station_id, c.id, c.maker, c.model, c.names, c.conversion
      from station_camera sc
        join camera c on c.id = sc.camera_id
      where sc.station_id = any ($1::uuid[])
      order by lower(c.maker), lower(c.model), c.conversion
    `,
    [stations],
  );

export const camerasByIds = (
  sql: Sql,
  ids: readonly string[],
): Promise<{ id: string; model: string; conversion: string }[]> =>
  many(sql, 'select id, model, conversion from camera where id = any ($1::uuid[])', [ids]);

/** All of the studio's, and whether each is used at a station. */
export const camerasFor = (
  sql: Sql,
  station: string,
): Promise<{ id: string; model: string; conversion: string; used: boolean }[]> =>
  many(
    sql,
    `
      select c.id, c.model, c.conversion, sc.station_id is not null as used
      from camera c
        left join station_camera sc on sc.camera_id = c.id and sc.station_id = $1
      order by lower(c.maker), lower(c.model), c.conversion
    `,
    [station],
  );

/** Answers those that were not there before. */
export const insertStationCameras = (
  sql: Sql,
  station: string,
  cameras: readonly string[],
): Promise<{ camera_id: string }[]> =>
  many(
    sql,
    `
      insert into station_camera (station_id, camera_id)
      select $1, unnest($2::uuid[])
      on conflict do nothing
      returning camera_id
    `,
    [station, cameras],
  );

/** Answers those that were there. */
export const deleteStationCameras = (
  sql: Sql,
  station: string,
  cameras: readonly string[],
): Promise<{ camera_id: string }[]> =>
  many(
    sql,
    `
      delete from station_camera
      where station_id = $1 and camera_id = any ($2::uuid[])
      returning camera_id
    `,
    [station, cameras],
  );
