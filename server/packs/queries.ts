import type { Sql } from '../db/pool';

export interface UploadRow { id: string; person_id: string; name: string; size: number; received: number; sha256: Buffer | null; created_at: Date }
export interface IntakeRow { id: string; name: string; status: 'reading' | 'ready' | 'accepted' | 'failed' | 'discarded'; error: { code: string; message: string; where: string; remedy: string } | null; job_id: string | null; sha256: Buffer; created_at: Date; person: string | null; size: number }
export interface EntryRow { id: number; path: string; size: number; sha256: Buffer | null; outcome: 'new' | 'duplicate' | 'document' | 'unknown' | 'refused' | 'ignored'; kind: string; format: string; title: string; headings: string[]; needs: { kind: string; name: string }[]; facts: Record<string, unknown>; selvedge: [string, string][] | null; note: string; problem: { code: string; message: string; where: string; remedy: string } | null; held_version_id: string | null; held_title: string | null; held_item: string | null; version_id: string | null; item_id: string | null }

export const insertUpload = (sql: Sql, u: { id: string; personId: string; name: string; size: number }) => sql.query('insert into upload (id, person_id, name, size) values ($1, $2, $3, $4)', [u.id, u.personId, u.name, u.size]);
export const uploadById = async (sql: Sql, id: string, lock = false): Promise<UploadRow | undefined> => (await sql.query<UploadRow>(`select id, person_id, name, size, received, sha256, created_at from upload where id = $1 ${lock ? 'for update' : ''}`, [id])).rows[0];
export const openUploads = async (sql: Sql, personId: string): Promise<UploadRow[]> => (await sql.query<UploadRow>('select id, person_id, name, size, received, sha256, created_at from upload where person_id = $1 and sha256 is null order by created_at', [personId])).rows;
export const insertUploadChunk = (sql: Sql, id: string, n: number, data: Buffer) => sql.query('insert into upload_chunk (upload_id, n, data) values ($1, $2, $3)', [id, n, data]);
export const uploadReceived = (sql: Sql, id: string, received: number) => sql.query('update upload set received = $2 where id = $1', [id, received]);
export const uploadDone = (sql: Sql, id: string, sha: Buffer) => sql.query('update upload set sha256 = $2 where id = $1', [id, sha]);
export const deleteUpload = (sql: Sql, id: string, personId: string) => sql.query('delete from upload where id = $1 and person_id = $2 and sha256 is null', [id, personId]);

export const insertIntake = (sql: Sql, i: { id: string; name: string; uploadId: string | null; sha: Buffer; personId: string | null }) => sql.query('insert into intake (id, name, upload_id, sha256, person_id) values ($1, $2, $3, $4, $5)', [i.id, i.name, i.uploadId, i.sha, i.personId]);
export const intakeJob = (sql: Sql, id: string, jobId: string) => sql.query('update intake set job_id = $2 where id = $1', [id, jobId]);
export const intakeStatus = (sql: Sql, id: string, status: IntakeRow['status'], error: unknown = null) => sql.query('update intake set status = $2, error = $3, settled_at = case when $2 in (\'accepted\', \'discarded\') then now() end where id = $1', [id, status, error ? JSON.stringify(error) : null]);
const intakeColumns = 'i.id, i.name, i.status, i.error, i.job_id, i.sha256, i.created_at, p.name as person, b.size';
export const intakeById = async (sql: Sql, id: string, lock = false): Promise<IntakeRow | undefined> => (await sql.query<IntakeRow>(`select ${intakeColumns} from intake i left join person p on p.id = i.person_id join blob b on b.sha256 = i.sha256 where i.id = $1 ${lock ? 'for update of i' : ''}`, [id])).rows[0];
export const intakes = async (sql: Sql, most: number): Promise<(IntakeRow & { counts: Record<string, number> })[]> =>
  (await sql.query<IntakeRow & { counts: Record<string, number> }>(`select ${intakeColumns}, coalesce((select jsonb_object_agg(o.outcome, o.n) from (select outcome, count(*)::int as n from intake_entry e where e.intake_id = i.id group by 1) o), '{}') as counts
    from intake i left join person p on p.id = i.person_id join blob b on b.sha256 = i.sha256 where i.status <> 'discarded' order by i.created_at desc limit $1`, [most])).rows;

export const clearEntries = (sql: Sql, intakeId: string) => sql.query('delete from intake_entry where intake_id = $1', [intakeId]);
export const insertEntry = (sql: Sql, intakeId: string, e: { path: string; size: number; sha256: Buffer | null; outcome: string; kind: string; format: string; title: string; headings: string[]; needs: unknown; facts: unknown; selvedge: unknown; note: string; problem: unknown; held: string | null }) =>
  sql.query('insert into intake_entry (intake_id, path, size, sha256, outcome, kind, format, title, headings, needs, facts, selvedge, note, problem, held_version_id) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15)',
    [intakeId, e.path, e.size, e.sha256, e.outcome, e.kind, e.format, e.title, e.headings, JSON.stringify(e.needs), JSON.stringify(e.facts), e.selvedge ? JSON.stringify(e.selvedge) : null, e.note, e.problem ? JSON.stringify(e.problem) : null, e.held]);
export const entriesOf = async (sql: Sql, intakeId: string): Promise<EntryRow[]> =>
  (await sql.query<EntryRow>(`select e.id, e.path, e.size, e.sha256, e.outcome, e.kind, e.format, e.title, e.headings, e.needs, e.facts, e.selvedge, e.note, e.problem, e.held_version_id, hi.title as held_title, hi.id as held_item, e.version_id, vi.item_id
    from intake_entry e left join version h on h.id = e.held_version_id left join item hi on hi.id = h.item_id left join version vi on vi.id = e.version_id where e.intake_id = $1 order by e.path`, [intakeId])).rows;
export const entryTaken = (sql: Sql, entryId: number, versionId: string) => sql.query('update intake_entry set version_id = $2 where id = $1', [entryId, versionId]);
export const heldBySha = async (sql: Sql, sha: Buffer): Promise<{ id: string; title: string } | undefined> =>
  (await sql.query<{ id: string; title: string }>('select v.id, i.title from version v join item i on i.id = v.item_id where v.sha256 = $1 order by v.created_at limit 1', [sha])).rows[0];

export const insertPack = (sql: Sql, p: { id: string; name: string; intakeId: string; supplier: string }) => sql.query('insert into pack (id, name, intake_id, supplier) values ($1, $2, $3, $4)', [p.id, p.name, p.intakeId, p.supplier]);
export const insertMember = (sql: Sql, packId: string, path: string, versionId: string) => sql.query('insert into pack_member (pack_id, path, version_id) values ($1, $2, $3) on conflict do nothing', [packId, path, versionId]);
