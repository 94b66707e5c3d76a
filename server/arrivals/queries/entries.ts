/** What an arrival holds, file by file, with what each is to become. */
import type { Sql } from '../../db/pool';
import { many } from '../../db/query';
import { type ProblemText } from './arrivals';

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
        held_version_id = r.version, target_entry_id = r.entry, proposed_item_id = r.item,
        proposed_entry_id = r.entry,
        confidence = least(e.confidence, r.confidence), likeness = nullif(r.likeness, 'null'),
        caution = concat_ws(' ', nullif(r.caution, ''), e.facts ->> 'caution')
      from jsonb_to_recordset($1::jsonb) as r (
        id bigint, outcome text, item uuid, version uuid, entry bigint, confidence real,
        likeness jsonb, caution text
      )
      where e.id = r.id
    `,
    [JSON.stringify(rows)],
  );

/** Rendered pictures are left out; their bytes stay, so that a person can make frames of them. */
export const leaveOutPictures = (sql: Sql, arrivalId: string) =>
  sql.query(
    `
      update arrival_entry
      set outcome = 'document', proposal = 'document'
      where arrival_id = $1
        and kind = 'frame'
        and outcome = 'frame'
        and format in ('jpeg', 'png', 'tiff')
        and not corrected
    `,
    [arrivalId],
  );

export const correctEntries = async (
  sql: Sql,
  arrivalId: string,
  ids: number[],
  correction: { outcome: string; kind: string | null; itemId: string | null; entryId: number | null },
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
      [arrivalId, ids, correction.outcome, correction.kind, correction.itemId, correction.entryId],
    )
  ).rowCount ?? 0;

/** Takes back what a person said of files: they are again what was proposed. */
export const asProposed = async (sql: Sql, arrivalId: string, ids: number[]): Promise<number> =>
  (
    await sql.query(
      `
        update arrival_entry
        set
          outcome = proposal, corrected = false, target_item_id = proposed_item_id,
          target_entry_id = proposed_entry_id,
          -- nothing is proposed to be one
          kind = case when kind = 'support-file' then proposal else kind end
        where arrival_id = $1 and id = any($2::bigint[]) and corrected
      `,
      [arrivalId, ids],
    )
  ).rowCount ?? 0;

export const renameEntry = (sql: Sql, arrivalId: string, entryId: number, title: string) =>
  sql.query('update arrival_entry set title = $3 where arrival_id = $1 and id = $2', [arrivalId, entryId, title]);

/** Licences, read-me files and the like that can be read, by path. */
export const papersOf = (sql: Sql, arrivalId: string): Promise<{ id: number; path: string; format: string }[]> =>
  many<{ id: number; path: string; format: string }>(
    sql,
    `
      select id, path, format
      from arrival_entry
      where arrival_id = $1 and kind = 'document' and sha256 is not null
      order by path
      limit 100
    `,
    [arrivalId],
  );

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
  when e.outcome = 'document' and e.kind = 'frame' then 'picture'
  when e.outcome in ('document', 'ignored') then 'papers' else e.outcome end`;

/** Whether a file has the words in its path or title; none are in each. */
const hasWords = (parameter: string): string => `position(lower(${parameter}) in lower(e.path || ' ' || e.title)) > 0`;

export type Group =
  | 'refused'
  | 'unknown'
  | 'again'
  | 'version'
  | 'variant'
  | 'effect'
  | 'new'
  | 'frame'
  | 'picture'
  | 'descriptor'
  | 'held'
  | 'papers';

/** What is proposed to become something. */
export const outcomesTaken: readonly string[] = ['new', 'version', 'variant', 'frame', 'descriptor'];

export interface GroupedEntry extends EntryRow {
  grp: Group;
  in_group: number;
  /** how many of the group are proposed to be taken */ takeable: number;
}

export const groupedEntries = async (
  sql: Sql,
  arrivalId: string,
  most: number,
  only: string | null,
  words: string,
): Promise<GroupedEntry[]> =>
  many<GroupedEntry>(
    sql,
    `
      with
        g as (
          select e.id, e.outcome, ${groupOf} as grp
          from arrival_entry e
          where e.arrival_id = $1 and ${hasWords('$5')}
        ),
        p as (
          select
            id, grp, row_number() over (partition by grp order by id) as place,
            count(*) over (partition by grp)::int as in_group,
            (count(*) filter (where outcome = any($4::text[])) over (partition by grp))::int as takeable
          from g
          where $3::text is null or grp = $3
        )
      select
        e.*, p.grp, p.in_group, p.takeable, ti.title as target_title, te.path as target_path, vi.item_id
      from p
        join arrival_entry e on e.id = p.id
        left join item ti on ti.id = e.target_item_id
        left join arrival_entry te on te.id = e.target_entry_id
        left join version vi on vi.id = e.version_id
      where p.place <= $2
      order by e.path
    `,
    [arrivalId, most, only, outcomesTaken, words],
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

/** @param words only files with these in their path or title */
export const groupIds = async (sql: Sql, arrivalId: string, group: string, words = ''): Promise<number[]> =>
  (
    await many<{ id: number }>(
      sql,
      `select e.id from arrival_entry e where e.arrival_id = $1 and ${groupOf} = $2 and ${hasWords('$3')}`,
      [arrivalId, group, words],
    )
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
