import type { Sql } from '../db/pool';
import { many, maybe, one } from '../db/query';

export interface ProblemText {
  code: string;
  message: string;
  where: string;
  remedy: string;
}
export interface UploadRow {
  id: string;
  person_id: string;
  name: string;
  size: number;
  received: number;
  sha256: Buffer | null;
  created_at: Date;
}
export type ArrivalStatus = 'arriving' | 'reading' | 'ready' | 'accepted' | 'failed' | 'discarded';
export interface Source {
  address?: string;
  author?: string;
  date?: string;
  receipt?: string;
}
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
}
export type Outcome =
  'new' | 'version' | 'variant' | 'duplicate' | 'frame' | 'descriptor' | 'document' | 'unknown' | 'refused' | 'ignored';
export interface Likeness {
  by: string;
  mean?: number;
  p95?: number;
  max?: number;
  mark?: string;
  words: string;
}
export interface EntryRow {
  id: number;
  path: string;
  size: number;
  sha256: Buffer | null;
  outcome: Outcome;
  proposal: Outcome;
  corrected: boolean;
  kind: string;
  format: string;
  title: string;
  headings: string[];
  needs: { kind: string; name: string }[];
  facts: Record<string, unknown>;
  selvedge: [string, string][] | null;
  note: string;
  problem: ProblemText | null;
  held_version_id: string | null;
  target_item_id: string | null;
  target_title: string | null;
  target_entry_id: number | null;
  target_path: string | null;
  likeness: Likeness | null;
  caution: string;
  confidence: number;
  evidence: string[];
  mismatches: string[];
  internal_id: string;
  content_sha256: Buffer | null;
  fingerprint: Buffer | null;
  version_id: string | null;
  item_id: string | null;
  frame_id: string | null;
}

/**
 * For the rest of the transaction: its commit does not wait for the disk. For parts of a job that begins anew when it is cut
 * off: the commit that says it is done waits, and with it all that was committed before.
 */
export const withoutWaiting = (sql: Sql) => sql.query(`select set_config('synchronous_commit', 'off', true)`);

export const insertUploads = (sql: Sql, personId: string, ids: string[], names: string[], sizes: number[]) =>
  sql.query(
    `
      insert into upload (id, person_id, name, size)
      select id, $1, name, size
      from unnest($2::uuid[], $3::text[], $4::bigint[]) u (id, name, size)
    `,
    [personId, ids, names, sizes],
  );
export const uploadById = async (sql: Sql, id: string, lock = false): Promise<UploadRow | undefined> =>
  maybe<UploadRow>(
    sql,
    `
      select
        id, person_id, name, size, received, sha256, created_at
      from upload
      where id = $1 ${lock ? 'for update' : ''}
    `,
    [id],
  );
/** Uploads that have not all arrived, with the arrival and the path that they belong to. */
export const openUploads = async (
  sql: Sql,
  personId: string,
  most = 2000,
): Promise<(UploadRow & { arrival_id: string; path: string; arrival: string })[]> =>
  many<UploadRow & { arrival_id: string; path: string; arrival: string }>(
    sql,
    `
      select
        u.id, u.person_id, u.name, u.size, u.received, u.sha256, u.created_at, f.arrival_id, f.path,
        i.name as arrival
      from upload u join arrival_file f on f.upload_id = u.id join arrival i on i.id = f.arrival_id
      where u.person_id = $1
        and u.sha256 is null
        and i.status = 'arriving'
      order by u.created_at, f.n
      limit $2
    `,
    [personId, most],
  );
export const insertUploadChunk = (sql: Sql, id: string, n: number, data: Buffer) =>
  sql.query('insert into upload_chunk (upload_id, n, data) values ($1, $2, $3)', [id, n, data]);
export const uploadReceived = (sql: Sql, id: string, received: number) =>
  sql.query('update upload set received = $2 where id = $1', [id, received]);
export const uploadDone = (sql: Sql, id: string, sha: Buffer) =>
  sql.query('update upload set sha256 = $2 where id = $1', [id, sha]);
export const dropUploadsOf = async (sql: Sql, arrivalId: string): Promise<void> => {
  await sql.query(
    `
      delete from upload_chunk c using arrival_file f
      where f.upload_id = c.upload_id and f.arrival_id = $1
    `,
    [arrivalId],
  );
};

export const insertArrival = (
  sql: Sql,
  i: { id: string; name: string; personId: string | null; stationId?: string | null },
) =>
  sql.query(
    `
      insert into arrival (id, name, status, person_id, station_id)
      values ($1, $2, 'arriving', $3, $4)
    `,
    [i.id, i.name, i.personId, i.stationId ?? null],
  );
export const insertFiles = (
  sql: Sql,
  arrivalId: string,
  paths: string[],
  sizes: number[],
  uploads: (string | null)[],
  shas: (Buffer | null)[],
) =>
  sql.query(
    `
      insert into arrival_file (arrival_id, n, path, size, upload_id, sha256)
      select $1, n, path, size, upload_id, sha256
      from unnest($2::text[], $3::bigint[], $4::uuid[], $5::bytea[]) with ordinality f (path, size, upload_id, sha256, n)
    `,
    [arrivalId, paths, sizes, uploads, shas],
  );
export interface FileRow {
  n: number;
  path: string;
  size: number;
  upload_id: string | null;
  sha256: Buffer | null;
}
export const filesOf = async (sql: Sql, arrivalId: string): Promise<FileRow[]> =>
  many<FileRow>(
    sql,
    `
      select n, path, size, upload_id, sha256
      from arrival_file
      where arrival_id = $1
      order by n
    `,
    [arrivalId],
  );
export const arrivalOfUpload = async (sql: Sql, uploadId: string): Promise<string | undefined> =>
  (await maybe<{ arrival_id: string }>(sql, 'select arrival_id from arrival_file where upload_id = $1', [uploadId]))
    ?.arrival_id;
export const fileArrived = (sql: Sql, uploadId: string, sha: Buffer) =>
  sql.query('update arrival_file set sha256 = $2 where upload_id = $1', [uploadId, sha]);
/** Files of arrivals from a station whose contents its agent has not sent yet. */
export const wantedOf = async (
  sql: Sql,
  stationId: string,
  most = 500,
): Promise<{ path: string; size: number; sha256: Buffer }[]> =>
  many<{ path: string; size: number; sha256: Buffer }>(
    sql,
    `
      select distinct on (inv.sha256) f.path, f.size, inv.sha256
      from arrival i
        join arrival_file f on f.arrival_id = i.id
        join inventory inv on inv.station_id = i.station_id
        and inv.path = f.path
      where i.station_id = $1
        and i.status = 'arriving'
        and f.sha256 is null
      limit $2
    `,
    [stationId, most],
  );
export const contentSent = (sql: Sql, stationId: string, path: string, sha: Buffer) =>
  sql.query(
    `
      update arrival_file f
      set sha256 = $3
      from arrival i, inventory inv
      where i.id = f.arrival_id
        and i.station_id = $1
        and i.status = 'arriving'
        and f.sha256 is null
        and inv.station_id = i.station_id
        and inv.path = f.path
        and (f.path = $2 or inv.sha256 = $3)
    `,
    [stationId, path, sha],
  );
export const dropGone = (sql: Sql, arrivalId: string, stationId: string) =>
  sql.query(
    `
      delete from arrival_file f
      where f.arrival_id = $1
        and f.sha256 is null
        and not exists (
          select 1
          from inventory inv
          where inv.station_id = $2 and inv.path = f.path
        )
    `,
    [arrivalId, stationId],
  );
export const arrivingFrom = async (sql: Sql, stationId: string): Promise<string[]> =>
  (
    await many<{ id: string }>(sql, `select id from arrival where station_id = $1 and status = 'arriving'`, [stationId])
  ).map((r) => r.id);
export const missingFiles = async (sql: Sql, arrivalId: string): Promise<number> =>
  (
    await one<{ n: number }>(
      sql,
      'select count(*)::int as n from arrival_file where arrival_id = $1 and sha256 is null',
      [arrivalId],
    )
  ).n;
/** What lies in an agent's folders of places and was not put there by us, and is not the same as anything held or asked for. */
export const foundAt = async (
  sql: Sql,
  agentId: string,
  stationId: string,
  prefixes: string[],
): Promise<{ path: string; size: number; sha256: Buffer; here: boolean }[]> =>
  many<{ path: string; size: number; sha256: Buffer; here: boolean }>(
    sql,
    `
      select
        inv.path, inv.size, inv.sha256,
        exists (select 1 from blob b where b.sha256 = inv.sha256) as here
      from inventory inv
      where inv.station_id = $1
        and exists (
          select 1
          from unnest($3::text[]) p
          where starts_with(inv.path, p)
        )
        and not exists (
          select 1
          from placement pl
          where pl.station_id = $2 and pl.path = inv.path
        )
      order by inv.path
      limit 20000
    `,
    [agentId, stationId, prefixes],
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
export const arrivalPrevious = (sql: Sql, id: string, packId: string | null) =>
  sql.query('update arrival set previous_pack_id = $2 where id = $1', [id, packId]);
const arrivalColumns =
  'i.id, i.name, i.status, i.error, i.job_id, i.created_at, i.settled_at, i.person_id, p.name as person, i.station_id, st.name as station, i.source, i.licence_id, i.previous_pack_id, f.size, f.files, f.arrived';
const arrivalFrom =
  'from arrival i left join person p on p.id = i.person_id left join station st on st.id = i.station_id left join lateral (select coalesce(sum(size), 0)::bigint as size, count(*)::int as files, count(sha256)::int as arrived from arrival_file where arrival_id = i.id) f on true';
export const arrivalById = async (sql: Sql, id: string, lock = false): Promise<ArrivalRow | undefined> =>
  maybe<ArrivalRow>(sql, `select ${arrivalColumns} ${arrivalFrom} where i.id = $1 ${lock ? 'for update of i' : ''}`, [
    id,
  ]);
export const arrivals = async (sql: Sql, most: number): Promise<(ArrivalRow & { counts: Record<string, number> })[]> =>
  many<ArrivalRow & { counts: Record<string, number> }>(
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
      where i.status <> 'discarded'
      order by i.created_at desc
      limit $1
    `,
    [most],
  );

export const clearEntries = (sql: Sql, arrivalId: string) =>
  sql.query('delete from arrival_entry where arrival_id = $1', [arrivalId]);
export interface NewEntry {
  path: string;
  size: number;
  sha256: string | null;
  outcome: Outcome;
  kind: string;
  format: string;
  title: string;
  headings: string[];
  needs: unknown;
  facts: unknown;
  selvedge: unknown;
  note: string;
  problem: unknown;
  confidence: number;
  evidence: string[];
  mismatches: string[];
  internal_id: string;
  content: string | null;
  fingerprint: string | null;
}
/** Many entries at once; hashes and fingerprints in hexadecimal. */
export const insertEntries = (sql: Sql, arrivalId: string, rows: NewEntry[]) =>
  sql.query(
    `
      insert into
        arrival_entry (
          arrival_id, path, size, sha256, outcome, proposal, kind, format, title, headings, needs,
          facts, selvedge, note, problem, confidence, evidence, mismatches, internal_id,
          content_sha256, fingerprint
        )
      select
        $1, path, size, decode(sha256, 'hex'), outcome, outcome, kind, format, title,
        array(select jsonb_array_elements_text(headings)), needs, facts, nullif(selvedge, 'null'),
        note, nullif(problem, 'null'), confidence, evidence, mismatches, internal_id,
        decode(content, 'hex'), decode(fingerprint, 'hex')
      from jsonb_to_recordset($2::jsonb) as r (
        path text, size bigint, sha256 text, outcome text, kind text, format text, title text,
        headings jsonb, needs jsonb, facts jsonb, selvedge jsonb, note text, problem jsonb,
        confidence real, evidence jsonb, mismatches jsonb, internal_id text, content text,
        fingerprint text
      )
      on conflict (arrival_id, path) do nothing
    `,
    [arrivalId, JSON.stringify(rows)],
  );
export interface ProposalRow {
  id: number;
  outcome: string;
  item: string | null;
  version: string | null;
  entry: number | null;
  confidence: number;
  likeness: unknown;
  caution: string | null;
}
export const setProposals = (sql: Sql, rows: ProposalRow[]) =>
  sql.query(
    `
      update arrival_entry e
      set
        outcome = r.outcome, proposal = r.outcome, target_item_id = r.item,
        held_version_id = r.version, target_entry_id = r.entry,
        confidence = least(e.confidence, r.confidence), likeness = nullif(r.likeness, 'null'),
        caution = coalesce(r.caution, '')
      from jsonb_to_recordset($1::jsonb) as r (
        id bigint, outcome text, item uuid, version uuid, entry bigint, confidence real,
        likeness jsonb, caution text
      )
      where e.id = r.id
    `,
    [JSON.stringify(rows)],
  );
export const correctEntries = async (
  sql: Sql,
  arrivalId: string,
  ids: number[],
  c: { outcome: string; kind: string | null; itemId: string | null; entryId: number | null },
): Promise<number> =>
  (
    await sql.query(
      `
        update arrival_entry
        set
          outcome = $3, kind = coalesce($4, kind), target_item_id = $5, target_entry_id = $6,
          corrected = true
        where arrival_id = $1 and id = any($2::bigint[])
      `,
      [arrivalId, ids, c.outcome, c.kind, c.itemId, c.entryId],
    )
  ).rowCount ?? 0;
export const entriesOf = async (sql: Sql, arrivalId: string, ids?: number[]): Promise<EntryRow[]> =>
  many<EntryRow>(
    sql,
    `
      select
        e.*, ti.title as target_title, te.path as target_path, vi.item_id
      from arrival_entry e
        left join item ti on ti.id = e.target_item_id
        left join arrival_entry te on te.id = e.target_entry_id
        left join version vi on vi.id = e.version_id
      where e.arrival_id = $1
        and ($2::bigint[] is null or e.id = any($2))
      order by e.path
    `,
    [arrivalId, ids ?? null],
  );
/** Groups by what is to be decided, exceptions first; of each the first rows, and how many there are. */
const groupOf = `case when e.outcome in ('refused', 'unknown') then e.outcome
  when not e.corrected and (e.caution <> '' or (e.outcome in ('new', 'version', 'variant', 'duplicate') and e.confidence < 0.78)) then 'again'
  when e.outcome = 'duplicate' then case when e.likeness->>'by' = 'effect' then 'effect' else 'held' end
  when e.outcome in ('document', 'ignored') then 'papers' else e.outcome end`;
export type Group =
  | 'refused'
  | 'unknown'
  | 'again'
  | 'version'
  | 'variant'
  | 'effect'
  | 'new'
  | 'frame'
  | 'descriptor'
  | 'held'
  | 'papers';
export const groupedEntries = async (
  sql: Sql,
  arrivalId: string,
  most: number,
  only: string | null,
): Promise<(EntryRow & { grp: Group; in_group: number })[]> =>
  many<EntryRow & { grp: Group; in_group: number }>(
    sql,
    `
      with
        g as (
          select e.id, ${groupOf} as grp
          from arrival_entry e
          where e.arrival_id = $1
        ),
        p as (
          select
            id, grp, row_number() over (partition by grp order by id) as place,
            count(*) over (partition by grp)::int as in_group
          from g
          where $3::text is null or grp = $3
        )
      select
        e.*, p.grp, p.in_group, ti.title as target_title, te.path as target_path, vi.item_id
      from p
        join arrival_entry e on e.id = p.id
        left join item ti on ti.id = e.target_item_id
        left join arrival_entry te on te.id = e.target_entry_id
        left join version vi on vi.id = e.version_id
      where p.place <= $2
      order by e.path
    `,
    [arrivalId, most, only],
  );
export const outcomeCounts = async (sql: Sql, arrivalId: string): Promise<Record<string, number>> =>
  Object.fromEntries(
    (
      await many<{ outcome: string; n: number }>(
        sql,
        'select outcome, count(*)::int as n from arrival_entry where arrival_id = $1 group by 1',
        [arrivalId],
      )
    ).map((r) => [r.outcome, r.n]),
  );
export const groupIds = async (sql: Sql, arrivalId: string, group: string): Promise<number[]> =>
  (
    await many<{ id: number }>(sql, `select e.id from arrival_entry e where e.arrival_id = $1 and ${groupOf} = $2`, [
      arrivalId,
      group,
    ])
  ).map((r) => r.id);
/** Titles of what an arrival brings of a kind, for what its presets need. */
export const broughtTitles = async (sql: Sql, arrivalId: string): Promise<string[]> =>
  (
    await many<{ title: string }>(
      sql,
      `
        select distinct title
        from arrival_entry
        where arrival_id = $1
          and outcome in ('new', 'version', 'variant', 'duplicate')
          and kind in ('look', 'camera-profile')
      `,
      [arrivalId],
    )
  ).map((r) => r.title);

export const entryTaken = (sql: Sql, entryId: number, versionId: string | null, frameId: string | null = null) =>
  sql.query('update arrival_entry set version_id = $2, frame_id = $3 where id = $1', [entryId, versionId, frameId]);
export const heldBySha = async (sql: Sql, sha: Buffer): Promise<{ id: string; title: string } | undefined> =>
  maybe<{ id: string; title: string }>(
    sql,
    `
      select v.id, i.title
      from version v join item i on i.id = v.item_id
      where v.sha256 = $1 and i.archived_at is null
      order by v.created_at
      limit 1
    `,
    [sha],
  );
/** Which of the names are titles of items held; for what presets need. */
export const titlesHeld = async (sql: Sql, names: string[]): Promise<string[]> =>
  (
    await many<{ title: string }>(
      sql,
      'select distinct title from item where title = any ($1) and archived_at is null',
      [names],
    )
  ).map((r) => r.title);

export interface HeldRow {
  item_id: string;
  version_id: string;
  kind: string;
  format: string;
  title: string;
  aliases: string[];
  headings: string[];
  file_name: string;
  sha256: Buffer;
  content_sha256: Buffer | null;
  internal_id: string;
  fingerprint: Buffer | null;
  facts: Record<string, unknown>;
  newest: boolean;
}
const heldColumns = `i.id as item_id, v.id as version_id, i.kind, v.format, i.title, i.aliases, i.headings, v.file_name, v.sha256, v.content_sha256, v.internal_id, v.fingerprint, case when i.kind = 'preset' then v.facts - 'unknown' else '{}' end as facts, i.newest_version_id = v.id or v.variant <> '' as newest`;
/** Held versions that a file of an arrival could be: by bytes, content, identity, name, or file name. */
export const candidates = async (
  sql: Sql,
  c: { shas: Buffer[]; contents: Buffer[]; identities: string[]; bases: string[]; files: string[] },
): Promise<HeldRow[]> =>
  many<HeldRow>(
    sql,
    `
      select ${heldColumns}
      from version v join item i on i.id = v.item_id
      where i.archived_at is null
        and v.id in (
          select id
          from version
          where sha256 = any($1::bytea[])
          union
          select id
          from version
          where content_sha256 = any($2::bytea[])
          union
          select id
          from version
          where internal_id = any($3::text[]) and internal_id <> ''
          union
          select x.newest_version_id
          from unnest($4::text[]) b
            join item x on lower(x.title) collate "C" >= b
            and lower(x.title) collate "C" < (b || chr(65535))
            and x.archived_at is null
          where b <> ''
          union
          select x.newest_version_id
          from item x
          where x.aliases && $4::text[] and x.archived_at is null
          union
          select v2.id
          from version v2 join item x on x.newest_version_id = v2.id
          where v2.file_name = any($5::text[])
        )
    `,
    [c.shas, c.contents, c.identities, c.bases, c.files],
  );
/** Presets with a title much like one of these; for revisions that were renamed. */
export const presetsLike = async (sql: Sql, titles: string[]): Promise<HeldRow[]> =>
  many<HeldRow>(
    sql,
    `
      select distinct on (v.id) ${heldColumns}
      from unnest($1::text[]) t
        cross join lateral (
          select *
          from item x
          where x.title % t
            and x.kind = 'preset'
            and x.archived_at is null
          order by similarity (x.title, t) desc
          limit 3
        ) i
        join version v on v.id = i.newest_version_id
    `,
    [titles],
  );
/** Fingerprints of all that is held of some kinds. */
export const prints = async (sql: Sql, kinds: string[]): Promise<HeldRow[]> =>
  many<HeldRow>(
    sql,
    `
      select
        i.id as item_id, v.id as version_id, i.kind, v.format, i.title, '{}'::text[] as aliases,
        '{}'::text[] as headings, '' as file_name, ''::bytea as sha256, null::bytea as content_sha256,
        '' as internal_id, v.fingerprint,
        case when i.kind = 'preset' then v.facts - 'unknown' else '{}' end as facts, true as newest
      from item i join version v on v.id = i.newest_version_id
      where i.archived_at is null
        and i.kind = any($1)
        and v.fingerprint is not null
    `,
    [kinds],
  );

export const insertPack = (
  sql: Sql,
  p: {
    id: string;
    name: string;
    arrivalId: string;
    supplier: string;
    release: string;
    source: unknown;
    licenceId: string | null;
    previousId: string | null;
  },
) =>
  sql.query(
    `
      insert into pack (id, name, arrival_id, supplier, release, source, licence_id, previous_id)
      values ($1, $2, $3, $4, $5, $6, $7, $8)
    `,
    [p.id, p.name, p.arrivalId, p.supplier, p.release, JSON.stringify(p.source), p.licenceId, p.previousId],
  );
export const insertMember = (sql: Sql, packId: string, path: string, versionId: string) =>
  sql.query(
    `
      insert into pack_member (pack_id, path, version_id)
      values ($1, $2, $3)
      on conflict do nothing
    `,
    [packId, path, versionId],
  );
export interface PackRow {
  id: string;
  name: string;
  supplier: string;
  release: string;
  created_at: Date;
  members: number;
  arrival_id: string;
}
export const packById = async (sql: Sql, id: string): Promise<PackRow | undefined> =>
  maybe<PackRow>(
    sql,
    `
      select
        p.id, p.name, p.supplier, p.release, p.created_at, p.arrival_id,
        (
          select count(*)::int
          from pack_member m
          where m.pack_id = p.id
        ) as members
      from pack p
      where p.id = $1
    `,
    [id],
  );
/** Packs that share members with an arrival, by content or by path, best first: releases of the same pack. */
export const packsLike = async (sql: Sql, arrivalId: string): Promise<(PackRow & { shared: number })[]> =>
  many<PackRow & { shared: number }>(
    sql,
    `
      select
        p.id, p.name, p.supplier, p.release, p.created_at, p.arrival_id,
        (
          select count(*)::int
          from pack_member m
          where m.pack_id = p.id
        ) as members,
        x.shared
      from (
        select m.pack_id, count(distinct m.path)::int as shared
        from arrival_entry e
          join version v on v.item_id = e.target_item_id
          join pack_member m on m.version_id = v.id
        where e.arrival_id = $1
          and e.outcome in ('duplicate', 'version')
        group by 1
      ) x
        join pack p on p.id = x.pack_id
      order by x.shared desc, p.created_at desc
      limit 5
    `,
    [arrivalId],
  );
export const membersOf = async (
  sql: Sql,
  packId: string,
): Promise<
  {
    path: string;
    version_id: string;
    item_id: string;
    title: string;
    kind: string;
    fingerprint: Buffer | null;
    facts: Record<string, unknown>;
    sha256: Buffer;
  }[]
> =>
  many<{
    path: string;
    version_id: string;
    item_id: string;
    title: string;
    kind: string;
    fingerprint: Buffer | null;
    facts: Record<string, unknown>;
    sha256: Buffer;
  }>(
    sql,
    `
      select
        m.path, v.id as version_id, v.item_id, i.title, i.kind, v.fingerprint, v.facts, v.sha256
      from pack_member m join version v on v.id = m.version_id join item i on i.id = v.item_id
      where m.pack_id = $1
      order by m.path
    `,
    [packId],
  );

/** What hangs on the versions that an arrival made: each in words, with a count. */
export const dependents = async (
  sql: Sql,
  arrivalId: string,
): Promise<{ what: string; n: number; example: string }[]> =>
  many<{ what: string; n: number; example: string }>(
    sql,
    `
      with
        mine as (
          select v.id, v.item_id
          from arrival_entry e join version v on v.id = e.version_id
          where e.arrival_id = $1
            and e.outcome in ('new', 'version', 'variant')
        )
      select *
      from (
        select
          'placed on a station' as what, count(*)::int as n,
          coalesce(min(s.name || ': ' || p.path), '') as example
        from placement p join mine on mine.id = p.version_id join station s on s.id = p.station_id
        union all
        select
          'part of a rollout', count(distinct r.id)::int, coalesce(min(r.title), '')
        from rollout_step st
          join mine on mine.id = st.version_id
          join rollout r on r.id = st.rollout_id
        union all
        select
          'converted into other items', count(*)::int, coalesce(min(i.title), '')
        from lineage l
          join mine on mine.id = l.source_version_id
          join version v on v.id = l.version_id
          join item i on i.id = v.item_id
        where v.id not in (select id from mine)
        union all
        select
          'given newer versions since', count(*)::int, coalesce(min(i.title), '')
        from version v
          join mine m on m.item_id = v.item_id
          join version mv on mv.id = m.id
          join item i on i.id = v.item_id
        where v.number > mv.number
          and v.id not in (select id from mine)
        union all
        select
          'part of another pack', count(*)::int, coalesce(min(p.name), '')
        from pack_member m join mine on mine.id = m.version_id join pack p on p.id = m.pack_id
        where p.arrival_id <> $1
        union all
        select
          'merged with other items', count(*)::int, coalesce(min(i.title), '')
        from item i
        where i.merged_into in (select item_id from mine)
          or (
            i.id in (select item_id from mine)
            and i.merged_into is not null
          )
      ) d
      where n > 0
    `,
    [arrivalId],
  );
/** Takes back what an arrival made; the order keeps references whole. */
export const takeBack = async (
  sql: Sql,
  arrivalId: string,
): Promise<{ versions: number; items: number; frames: number }> => {
  const versions = await many<{ id: string; item_id: string }>(
    sql,
    `
      select v.id, v.item_id
      from arrival_entry e join version v on v.id = e.version_id
      where e.arrival_id = $1
        and e.outcome in ('new', 'version', 'variant')
    `,
    [arrivalId],
  );
  const frames = (
    await many<{ id: string }>(
      sql,
      `
        select frame_id as id
        from arrival_entry
        where arrival_id = $1 and frame_id is not null
      `,
      [arrivalId],
    )
  ).map((r) => r.id);
  const ids = versions.map((v) => v.id);
  await sql.query('delete from pack where arrival_id = $1', [arrivalId]);
  await sql.query('update arrival_entry set version_id = null, frame_id = null where arrival_id = $1', [arrivalId]);
  // what another arrival was compared with must not name what is gone
  await sql.query(
    `
      update arrival_entry
      set held_version_id = null
      where held_version_id = any($1::uuid[])
    `,
    [ids],
  );
  await sql.query('delete from lineage where version_id = any ($1::uuid[])', [ids]);
  await sql.query(
    `
      delete from rendition r
      where version_id = any($1::uuid[])
        and not exists (select 1 from placement p where p.rendition_id = r.id)
        and not exists (
          select 1
          from rollout_step s
          where s.rendition_id = r.id
        )
    `,
    [ids],
  );
  await sql.query('delete from version where id = any ($1::uuid[])', [ids]);
  await sql.query(
    `
      update arrival_entry
      set target_item_id = null
      where target_item_id = any($1::uuid[])
        and not exists (
          select 1
          from version v
          where v.item_id = target_item_id
        )
    `,
    [versions.map((v) => v.item_id)],
  );
  const items = await sql.query(
    `
      delete from item i
      where id = any($1::uuid[])
        and not exists (select 1 from version v where v.item_id = i.id)
    `,
    [versions.map((v) => v.item_id)],
  );
  if (frames.length) await sql.query('delete from frame where id = any ($1::uuid[])', [frames]);
  return { versions: ids.length, items: items.rowCount ?? 0, frames: frames.length };
};
