import type { Descriptor } from '@/core/editor/descriptor';
import { must } from '@/core/must';
import type { Sql } from '../db/pool';
import { many, maybe, one } from '../db/query';

/** Descriptors by their text, as they were last asked for: they are needed often, and seldom change. */
let read = new Map<string, Descriptor>();

const frozen = (text: string): Descriptor =>
  JSON.parse(text, (_key, value: unknown) => Object.freeze(value)) as Descriptor;

/** All descriptors. One whose text is what it was is the same object again, which is why none can be changed. */
export async function allDescriptors(sql: Sql): Promise<readonly Descriptor[]> {
  const rows = await many<{ text: string }>(sql, {
    name: 'descriptors',
    text: 'select descriptor::text as text from editor order by id, version',
  });
  const before = read;
  const all = rows.map(({ text }) => before.get(text) ?? frozen(text));
  read = new Map(rows.map(({ text }, at) => [text, must(all[at])]));
  return all;
}

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

export const descriptorOf = async (sql: Sql, id: string, version: string): Promise<Descriptor | null> =>
  (
    await maybe<{ descriptor: Descriptor }>(sql, 'select descriptor from editor where id = $1 and version = $2', [
      id,
      version,
    ])
  )?.descriptor ?? null;

interface NewProposal {
  id: string;
  descriptor: Descriptor;
  cameFrom: string;
  arrivalId: string | null;
  personId: string | null;
}
export const insertProposal = (sql: Sql, { id, descriptor, cameFrom, arrivalId, personId }: NewProposal) =>
  sql.query(
    `
      insert into descriptor_proposal (id, editor_id, editor_version, descriptor, came_from, arrival_id, person_id)
      values ($1, $2, $3, $4, $5, $6, $7)
    `,
    [id, descriptor.editor, descriptor.version, JSON.stringify(descriptor), cameFrom, arrivalId, personId],
  );
export interface ProposalRow {
  id: string;
  descriptor: Descriptor;
  status: 'open' | 'taken' | 'declined';
  came_from: string;
  revision: number | null;
}
export const openProposals = (
  sql: Sql,
): Promise<
  (ProposalRow & { known: Descriptor | null; arrival: string | null; by: string | null; created_at: Date })[]
> =>
  many(
    sql,
    `
      select
        d.id, d.descriptor, d.status, d.came_from, d.revision, d.created_at,
        e.descriptor as known, a.name as arrival, p.name as by
      from descriptor_proposal d
        left join editor e on e.id = d.editor_id and e.version = d.editor_version
        left join arrival a on a.id = d.arrival_id
        left join person p on p.id = d.person_id
      where d.status = 'open'
      order by d.created_at
    `,
  );
const proposalColumns = 'id, descriptor, status, came_from, revision';
export const proposalById = (sql: Sql, id: string): Promise<ProposalRow | undefined> =>
  maybe<ProposalRow>(sql, `select ${proposalColumns} from descriptor_proposal where id = $1 for update`, [id]);
export const settleProposal = (
  sql: Sql,
  id: string,
  status: 'taken' | 'declined',
  personId: string,
  revision: number | null,
) =>
  sql.query(
    `
      update descriptor_proposal
      set status = $2, decided_by = $3, decided_at = now(), revision = $4
      where id = $1
    `,
    [id, status, personId, revision],
  );
export const newestRevision = async (sql: Sql, { editor, version }: Descriptor): Promise<number> =>
  (
    await one<{ n: number }>(
      sql,
      'select max(n) as n from editor_revision where editor_id = $1 and editor_version = $2',
      [editor, version],
    )
  ).n;
/** The newest first, so that they are taken back in turn. */
export const proposalsOf = (sql: Sql, arrivalId: string): Promise<ProposalRow[]> =>
  many<ProposalRow>(
    sql,
    `
      select ${proposalColumns}
      from descriptor_proposal
      where arrival_id = $1
      order by revision desc nulls last
      for update
    `,
    [arrivalId],
  );
export const dropProposals = (sql: Sql, arrivalId: string) =>
  sql.query('delete from descriptor_proposal where arrival_id = $1', [arrivalId]);
/** Takes a revision away; the one before counts again, and an editor without any is not known any more. */
export async function dropRevision(sql: Sql, { editor, version }: Descriptor, n: number): Promise<void> {
  await sql.query('delete from editor_revision where editor_id = $1 and editor_version = $2 and n = $3', [
    editor,
    version,
    n,
  ]);
  const before = await revision(sql, editor, version, null);
  if (before) await upsertEditor(sql, before);
  else await sql.query('delete from editor where id = $1 and version = $2', [editor, version]);
}

export interface HeldPreset {
  id: string;
  item_id: string;
  title: string;
  file_name: string;
  sha256: Buffer;
  facts: Record<string, unknown>;
}
/** Versions in a language; with `newest`, the one that counts of each item that is not archived. */
export const presetsIn = (sql: Sql, language: string, newest: boolean): Promise<HeldPreset[]> =>
  many<HeldPreset>(
    sql,
    `
      select v.id, v.item_id, i.title, v.file_name, v.sha256, v.facts
      from version v
        join item i on i.id = v.item_id
      where i.kind = 'preset'
        and v.format = $1
        and (not $2 or (i.newest_version_id = v.id and i.archived_at is null))
      order by i.sort_title, v.number, v.id
    `,
    [language, newest],
  );

export interface HeldSample {
  id: string;
  file_name: string;
}
/** The newest versions in a language, without what was read of them. */
export const samplesIn = (sql: Sql, language: string, most: number): Promise<HeldSample[]> =>
  many<HeldSample>(
    sql,
    `
      select v.id, v.file_name
      from item i
        join version v on v.id = i.newest_version_id
      where i.kind = 'preset' and v.format = $1 and i.archived_at is null
      order by i.sort_title, i.id
      limit $2
    `,
    [language, most],
  );

interface FactsRead {
  facts: Record<string, unknown>;
  words: string;
  content: Buffer | null;
  fingerprint: Buffer | null;
  selvedge: unknown;
}
/** What is read of a version's file, with what follows from that. */
export const setFacts = (sql: Sql, versionId: string, { facts, words, content, fingerprint, selvedge }: FactsRead) =>
  sql.query(
    `
      update version
      set facts = $2, words = $3, content_sha256 = $4, fingerprint = $5, selvedge = $6
      where id = $1
    `,
    [versionId, JSON.stringify(facts), words, content, fingerprint, JSON.stringify(selvedge)],
  );

/** All that was said of an editor, the newest first, and whether a person said it. */
export const revisionsOf = (
  sql: Sql,
  { editor, version }: Pick<Descriptor, 'editor' | 'version'>,
): Promise<{ descriptor: Descriptor; byPerson: boolean }[]> =>
  many(
    sql,
    `
      select descriptor, person_id is not null as "byPerson"
      from editor_revision
      where editor_id = $1 and editor_version = $2
      order by n desc
    `,
    [editor, version],
  );

/** What was proposed of an editor, whatever was decided. */
export const proposalsFor = async (
  sql: Sql,
  { editor, version }: Pick<Descriptor, 'editor' | 'version'>,
): Promise<Descriptor[]> =>
  (
    await many<{ descriptor: Descriptor }>(
      sql,
      `
        select descriptor
        from descriptor_proposal
        where editor_id = $1 and editor_version = $2
      `,
      [editor, version],
    )
  ).map(({ descriptor }) => descriptor);
