/** Intake: uploads in parts, reading a pack in a job, accepting what was chosen in one transaction. */
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { v7 } from 'uuid';
import { number, object, string } from 'yup';
import { readCube } from '@/core/look/cube';
import { sampler } from '@/core/look/sample';
import { selvedge } from '@/core/look/selvedge';
import { split } from '@/core/preset/bake';
import { compile } from '@/core/preset/render';
import type { ClassOverrides } from '@/core/preset/bake';
import type { Settings } from '@/core/preset/kinds';
import { Problem } from '@/core/problem';
import { blobOfUpload, blobSize, CHUNK, getBlob, hex, putBlob, spoolBlob } from '../blobs/service';
import { pool, transaction, type Sql } from '../db/pool';
import { descriptors } from '../editors/service';
import { record } from '../events';
import { createItem } from '../items/create';
import { addJob, Cancelled, type JobContext } from '../jobs/service';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../people/service';
import { inspectFile, inspectPack, type Inspected } from './inspect';
import * as q from './queries';

export const MAX_UPLOAD = 4 * 2 ** 30, MAX_PART = 8 * CHUNK;
const uploadSchema = object({ name: string().required().max(255), size: number().integer().min(1, 'The file is empty.').max(MAX_UPLOAD, 'A file may have at most 4 GB.').required() }).noUnknown();

export async function beginUpload(person: Person, input: { name: string; size: number }): Promise<{ id: string; received: number }> {
  allow(person, 'intake.make');
  const u = checked(uploadSchema, input) as { name: string; size: number }, id = v7();
  await q.insertUpload(pool(), { id, personId: person.id, name: u.name.replace(/[\u0000-\u001f/\\]/g, ' ').trim() || 'upload', size: u.size });
  return { id, received: 0 };
}

const gone = (id: string): Problem => new Problem('upload-gone', 'This upload is no longer there.', id, 'Drop the file again.');

/** Appends a part at an offset. Parts but the last are multiples of 1 MiB. A part that is there already is passed over. */
export async function uploadPart(person: Person, id: string, offset: number, bytes: Buffer): Promise<{ received: number }> {
  allow(person, 'intake.make');
  return transaction(async (sql) => {
    const u = await q.uploadById(sql, id, true);
    if (!u || u.person_id !== person.id || u.sha256) throw gone(id);
    if (offset < u.received) return { received: u.received };
    const after = offset + bytes.length;
    if (offset > u.received || after > u.size || (bytes.length % CHUNK !== 0 && after !== u.size)) throw new Problem('upload-part', `The part does not continue the upload at ${u.received} bytes.`, id, 'Go on from where the upload stands.');
    for (let at = 0; at < bytes.length; at += CHUNK) await q.insertUploadChunk(sql, id, (offset + at) / CHUNK, bytes.subarray(at, at + CHUNK));
    await q.uploadReceived(sql, id, after);
    return { received: after };
  });
}

export async function uploadState(person: Person, id: string): Promise<{ id: string; name: string; size: number; received: number }> {
  const u = await q.uploadById(pool(), id);
  if (!u || u.person_id !== person.id) throw gone(id);
  return { id: u.id, name: u.name, size: u.size, received: u.received };
}

export const unfinishedUploads = async (person: Person) => { allow(person, 'view'); return (await q.openUploads(pool(), person.id)).map(({ id, name, size, received }) => ({ id, name, size, received })); };
export const dropUpload = async (person: Person, id: string) => { allow(person, 'intake.make'); await q.deleteUpload(pool(), id, person.id); };

/** A complete upload becomes an intake, and a job begins to read it. */
export async function finishUpload(person: Person, id: string): Promise<{ intake: string }> {
  allow(person, 'intake.make');
  return transaction(async (sql) => {
    const u = await q.uploadById(sql, id, true);
    if (!u || u.person_id !== person.id) throw gone(id);
    if (u.received !== u.size) throw new Problem('upload-part', `Only ${u.received} of ${u.size} bytes have arrived.`, id, 'Send the rest first.');
    const sha = u.sha256 ?? (await blobOfUpload(sql, id));
    await q.uploadDone(sql, id, sha);
    return { intake: await beginIntake(sql, person, u.name, sha, id) };
  });
}

async function beginIntake(sql: Sql, person: Person | null, name: string, sha: Buffer, uploadId: string | null): Promise<string> {
  const id = v7();
  await q.insertIntake(sql, { id, name, uploadId, sha, personId: person?.id ?? null });
  await q.intakeJob(sql, id, await addJob(sql, 'intake', `Read ${name}`, { intake: id }, person?.id ?? null));
  await record(sql, person ? actorOf(person) : { personId: null, name: 'demo' }, 'intake', id, 'arrived', null, { name });
  return id;
}

/** The twelve threads of what an entry does; null where it does nothing to color. */
function threadsOf(e: Extract<Inspected, { type: 'entry' }>): [string, string][] | null {
  if (e.kind === 'look') return selvedge(sampler(readCube(e.bytes)));
  if (e.kind === 'preset') return selvedge(compile(split(e.facts.settings as Settings, e.facts.classes as ClassOverrides).kept));
  return null;
}

/** The job: reads the archive (or the single file) into a table of entries. Idempotent: it begins anew each time. */
export async function readIntake(job: JobContext): Promise<{ entries: number }> {
  const sql = pool(), id = job.payload.intake as string, intake = await q.intakeById(sql, id);
  if (!intake || intake.status === 'accepted' || intake.status === 'discarded') return { entries: 0 };
  const known = await descriptors(), folder = await mkdtemp(join(tmpdir(), 'etagere-intake-')), file = join(folder, 'pack');
  const total = intake.size;
  let done = 0, entries = 0;
  await q.clearEntries(sql, id);
  try {
    await job.progress(0, 'begun'); // stopped before it began, it says so here
    await spoolBlob(intake.sha256, file);
    const isZip = (await getHead(intake.sha256)).subarray(0, 2).toString('latin1') === 'PK';
    for await (const e of isZip ? inspectPack(file, known) : single(intake.name, intake.sha256, known)) {
      await transaction(async (tx) => {
        const base = { path: e.path, sha256: null as Buffer | null, kind: '', format: '', title: '', headings: [] as string[], needs: [] as unknown, facts: {} as unknown, selvedge: null as unknown, note: '', problem: null as unknown, held: null as string | null };
        if (e.type === 'entry') {
          const takeable = e.kind === 'look' || e.kind === 'preset', held = takeable ? await q.heldBySha(tx, e.sha256) : undefined;
          if (takeable) await putBlob(tx, e.bytes);
          await q.insertEntry(tx, id, { ...base, size: e.bytes.length, sha256: takeable ? e.sha256 : null, outcome: held ? 'duplicate' : takeable ? 'new' : e.kind, kind: e.kind, format: e.format, title: e.title, headings: e.headings, needs: e.needs, facts: e.facts, selvedge: threadsOf(e), note: held ? `byte for byte the held item ${held.title}` : e.note, held: held?.id ?? null });
        } else if (e.type === 'refused') await q.insertEntry(tx, id, { ...base, size: e.size, outcome: 'refused', note: e.problem.message, problem: e.problem.toJSON() });
        else await q.insertEntry(tx, id, { ...base, size: e.size, outcome: 'ignored', note: e.why });
      });
      entries++;
      done += e.type === 'entry' ? e.bytes.length : e.size;
      await job.progress(Math.min(0.98, done / (done + total)), `${entries} files read`);
    }
    await markRepeats(id);
    await transaction(async (tx) => { await q.intakeStatus(tx, id, 'ready'); await record(tx, { personId: job.personId, name: 'worker' }, 'intake', id, 'read', null, { entries }); });
    return { entries };
  } catch (e) {
    if (e instanceof Problem) await transaction(async (tx) => { await q.clearEntries(tx, id); await q.intakeStatus(tx, id, 'failed', e.toJSON()); await record(tx, { personId: job.personId, name: 'worker' }, 'intake', id, 'failed', null, { code: e.code }); });
    if (e instanceof Cancelled) await transaction(async (tx) => { await q.clearEntries(tx, id); await q.intakeStatus(tx, id, 'failed', new Problem('stopped', 'Reading was stopped; nothing of it was taken in.', intake.name, 'Discard the delivery, or drop it again.').toJSON()); await record(tx, { personId: job.personId, name: 'worker' }, 'intake', id, 'stopped'); });
    throw e;
  } finally { await rm(folder, { recursive: true, force: true }); }
}

/** The second and later copies of one content within an arrival are duplicates of the first. */
async function markRepeats(id: string): Promise<void> {
  await pool().query(`update intake_entry e set outcome = 'duplicate', note = 'byte for byte ' || f.path || ' in this pack' from intake_entry f
    where e.intake_id = $1 and f.intake_id = $1 and e.sha256 = f.sha256 and e.outcome = 'new' and f.outcome = 'new' and f.id = (select min(g.id) from intake_entry g where g.intake_id = $1 and g.sha256 = e.sha256) and e.id <> f.id`, [id]);
}

async function getHead(sha: Buffer): Promise<Buffer> {
  return (await pool().query<{ d: Buffer }>('select substring(data from 1 for 16) as d from blob_chunk where sha256 = $1 and n = 0', [sha])).rows[0]?.d ?? Buffer.alloc(0);
}

async function* single(name: string, sha: Buffer, known: Awaited<ReturnType<typeof descriptors>>): AsyncGenerator<Inspected> {
  const size = (await blobSize(sha)) ?? 0;
  if (size > 256 * 2 ** 20) { yield { type: 'refused', path: name, size, sha256: null, problem: new Problem('limit-size', 'A single file may have 256 MB.', name, 'If it is an archive, pack it as a ZIP.') }; return; }
  yield inspectFile(name, await getBlob(sha), sha, known);
}

export async function intakeFor(person: Person, id: string): Promise<{ intake: q.IntakeRow; entries: q.EntryRow[] }> {
  allow(person, 'intake.read');
  const intake = await q.intakeById(pool(), id);
  if (!intake) throw new Problem('not-found', 'There is no such arrival.', id, 'Go back to Intake.');
  return { intake, entries: await q.entriesOf(pool(), id) };
}

export async function listIntakes(person: Person) { allow(person, 'intake.read'); return q.intakes(pool(), 50); }

/** Takes the chosen entries onto a shelf: all of them or none. Duplicates join the pack as members, not as items. */
export async function acceptIntake(person: Person, id: string, input: { entries: number[]; shelfId: string; supplier?: string }): Promise<{ items: string[] }> {
  allow(person, 'intake.accept');
  return transaction(async (sql) => {
    const intake = await q.intakeById(sql, id, true);
    if (!intake || intake.status !== 'ready') throw new Problem('intake-settled', 'This arrival has been settled already, or is still being read.', id, 'Reload the page.');
    const rows = await q.entriesOf(sql, id), wanted = new Set(input.entries), chosen = rows.filter((e) => wanted.has(e.id)), items: string[] = [];
    if (!chosen.length) throw new Problem('intake-nothing', 'Nothing is chosen.', id, 'Choose at least one file, or discard the arrival.');
    const bad = chosen.find((e) => e.outcome !== 'new');
    if (bad) throw new Problem('intake-entry', 'Only new looks and presets can be taken onto a shelf.', bad.path, 'Take this file out of the choice.');
    const packId = v7(), single = rows.length === 1;
    if (!single) await q.insertPack(sql, { id: packId, name: intake.name.replace(/\.zip$/i, ''), intakeId: id, supplier: input.supplier ?? '' });
    const bySha = new Map<string, string>();
    for (const e of chosen) {
      const held = await q.heldBySha(sql, e.sha256!);
      if (held) throw new Problem('intake-held', `What ${e.path} holds came in meanwhile, as ${held.title}.`, e.path, 'Read the arrival again.');
      const made = await createItem(sql, actorOf(person), { kind: e.kind as 'look' | 'preset', title: e.title, headings: e.headings, shelfId: input.shelfId, supplier: input.supplier ?? '', sha: e.sha256!, fileName: e.path.split('/').pop()!, format: e.format, facts: e.facts, selvedge: e.selvedge, notes: `from ${intake.name}` });
      await q.entryTaken(sql, e.id, made.versionId);
      bySha.set(hex(e.sha256!), made.versionId);
      if (!single) await q.insertMember(sql, packId, e.path, made.versionId);
      items.push(made.itemId);
    }
    if (!single) for (const e of rows) if (e.outcome === 'duplicate') { const v = e.held_version_id ?? bySha.get(hex(e.sha256!)); if (v) await q.insertMember(sql, packId, e.path, v); }
    await q.intakeStatus(sql, id, 'accepted');
    await record(sql, actorOf(person), 'intake', id, 'accepted', null, { items: items.length });
    return { items };
  });
}

export async function discardIntake(person: Person, id: string): Promise<void> {
  allow(person, 'intake.accept');
  await transaction(async (sql) => {
    const intake = await q.intakeById(sql, id, true);
    if (!intake || intake.status === 'accepted') throw new Problem('intake-settled', 'This arrival has been settled already.', id, 'Reload the page.');
    await q.intakeStatus(sql, id, 'discarded');
    await record(sql, actorOf(person), 'intake', id, 'discarded');
  });
}


/** Which of the names are titles of items held; for what presets need. */
export async function heldNames(names: string[]): Promise<Set<string>> {
  if (!names.length) return new Set();
  return new Set((await pool().query<{ title: string }>('select distinct title from item where title = any ($1) and archived_at is null', [names])).rows.map((r) => r.title));
}
