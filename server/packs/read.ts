/** The job that reads an arrival: every file, whatever archive it lies in, into a table of entries with proposals. */
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fingerprintDistance } from '@/core/look/fingerprint';
import { bytesOfFingerprint } from '@/core/look/fingerprint';
import { limits } from '@/core/pack/entry-rules';
import { mismatches } from '@/core/pack/likeness';
import { propose } from '@/core/pack/propose';
import { archiveEditor, isTakeable } from '@/core/pack/recognise';
import { Problem } from '@/core/problem';
import { blobHead, getBlob, hex, putBlobs, spoolBlob } from '../blobs/service';
import { pool, transaction, type Sql } from '../db/pool';
import { descriptors } from '../editors/service';
import { record } from '../events';
import { presetEffect, tableEffect } from '../items/effect';
import { Cancelled, type JobContext } from '../jobs/service';
import { heldFor, incoming } from './held';
import { inspectFile, inspectPack, type Inspected } from './inspect';
import { matchPack } from './releases';
import * as q from './queries';

type Known = Awaited<ReturnType<typeof descriptors>>;
const SINGLE_MOST = 256 * 2 ** 20, BATCH_FILES = 200, BATCH_BYTES = 8 * 2 ** 20;

/** Idempotent: it begins anew each time. */
export async function readIntake(job: JobContext): Promise<{ entries: number }> {
  const sql = pool(), id = job.payload.intake as string, intake = await q.intakeById(sql, id);
  if (!intake || intake.status === 'accepted' || intake.status === 'discarded') return { entries: 0 };
  const known = await descriptors(), worker = { personId: job.personId, name: 'worker' };
  let done = 0, entries = 0;
  await q.clearEntries(sql, id);
  try {
    await job.progress(0, 'begun'); // stopped before it began, it says so here
    let batch: { row: q.NewEntry; bytes: Buffer | null; sha: Buffer | null }[] = [], held = 0, writing: Promise<unknown> = Promise.resolve();
    // one batch is written while the next is read
    const flush = async () => {
      const now = batch;
      batch = []; held = 0;
      await writing;
      if (now.length) writing = transaction(async (tx) => { await q.withoutWaiting(tx); await putBlobs(tx, now.flatMap((b) => (b.bytes && b.sha ? [{ sha256: b.sha, bytes: b.bytes }] : []))); await q.insertEntries(tx, id, now.map((b) => b.row)); });
      writing.catch(() => {}); // told when it is awaited
    };
    for await (const e of contentsOf(intake, await q.filesOf(sql, id), known)) {
      const made = entryOf(e);
      batch.push(made);
      held += made.bytes?.length ?? 0;
      entries++;
      done += made.row.size;
      if (batch.length >= BATCH_FILES || held >= BATCH_BYTES) await flush();
      await job.progress(Math.min(0.9, (0.9 * done) / (done + intake.size)), `${entries} files read`);
    }
    await flush();
    await writing;
    await job.progress(0.92, 'comparing with what is held');
    await transaction(async (tx) => {
      await proposeAll(tx, id);
      await matchPack(tx, id);
      await q.intakeStatus(tx, id, 'ready');
      await record(tx, worker, 'intake', id, 'read', null, { entries });
    });
    return { entries };
  } catch (e) {
    const problem = e instanceof Problem ? e : e instanceof Cancelled ? new Problem('stopped', 'Reading was stopped; nothing of it was taken in.', intake.name, 'Discard the delivery, or drop it again.') : null;
    if (problem) await transaction(async (tx) => { await q.clearEntries(tx, id); await q.intakeStatus(tx, id, 'failed', problem.toJSON()); await record(tx, worker, 'intake', id, problem.code === 'stopped' ? 'stopped' : 'failed', null, { code: problem.code }); });
    throw e;
  }
}

/** Every file of the arrival in turn; a ZIP that is no editor's own kind of file is walked, below its own name where there are others. */
async function* contentsOf(intake: q.IntakeRow, files: q.FileRow[], known: Known): AsyncGenerator<Inspected> {
  for (const f of files) {
    const sha = f.sha256!, zip = (await blobHead(sha, 4)).toString('latin1') === 'PK\u0003\u0004';
    if (f.size > SINGLE_MOST && !zip) { yield { type: 'refused', path: f.path, size: f.size, sha256: null, problem: new Problem('limit-size', 'A single file may have 256 MB.', f.path, 'If it is an archive, pack it as a ZIP.') }; continue; }
    if (!zip || (f.size <= limits.nestedBytes && archiveEditor(await getBlob(sha), known))) { yield inspectFile(f.path, await getBlob(sha), sha, known); continue; }
    const folder = await mkdtemp(join(tmpdir(), 'etagere-intake-')), file = join(folder, 'pack');
    try {
      await spoolBlob(sha, file);
      for await (const e of inspectPack(file, known)) yield files.length === 1 ? e : { ...e, path: `${f.path}/${e.path}` };
    } catch (e) {
      if (files.length === 1 || !(e instanceof Problem)) throw e;
      yield { type: 'refused', path: f.path, size: f.size, sha256: null, problem: e };
    } finally { await rm(folder, { recursive: true, force: true }); }
  }
}

function entryOf(e: Inspected): { row: q.NewEntry; bytes: Buffer | null; sha: Buffer | null } {
  const row: q.NewEntry = { path: e.path, size: e.type === 'entry' ? e.bytes.length : e.size, sha256: null, outcome: 'ignored', kind: '', format: '', title: '', headings: [], needs: [], facts: {}, selvedge: null, note: '', problem: null, confidence: 1, evidence: [], mismatches: [], internal_id: '', content: null, fingerprint: null };
  if (e.type === 'ignored') return { row: { ...row, note: e.why }, bytes: null, sha: null };
  if (e.type === 'refused') return { row: { ...row, outcome: 'refused', note: e.problem.message, problem: e.problem.toJSON() }, bytes: null, sha: null };
  const effect = e.kind === 'preset' ? presetEffect(e.facts) : e.look ? tableEffect(e.look) : null;
  // camera data is developed by a reader that comes with camera profiles; until then it is told and kept out
  const frame = e.kind === 'frame', take = isTakeable(e.kind) || frame || e.kind === 'descriptor';
  return {
    bytes: take ? e.bytes : null, sha: take ? e.sha256 : null,
    row: {
      ...row, sha256: take ? hex(e.sha256) : null, outcome: isTakeable(e.kind) ? 'new' : frame ? 'frame' : e.kind === 'descriptor' ? 'descriptor' : e.kind === 'unknown' ? 'unknown' : 'document',
      kind: e.kind, format: e.format, title: e.title.slice(0, 200), headings: e.headings.slice(0, 4), needs: e.needs, facts: e.facts, selvedge: effect?.selvedge ?? null, note: e.note, confidence: e.confidence, evidence: e.evidence, mismatches: isTakeable(e.kind) ? mismatches(e.path, e.facts) : [],
      internal_id: typeof e.facts.internalId === 'string' ? e.facts.internalId : '', content: effect?.content ? hex(effect.content) : null, fingerprint: effect?.fingerprint ? hex(Buffer.from(bytesOfFingerprint(effect.fingerprint))) : null,
    },
  };
}

/** What each entry is to what is held and to the others. Frames and descriptors are duplicates by bytes alone. */
export async function proposeAll(sql: Sql, id: string): Promise<void> {
  const entries = await q.entriesOf(sql, id), takeable = entries.filter((e) => e.outcome === 'new').map(incoming), index = await heldFor(sql, takeable);
  const proposals = propose(takeable, index, fingerprintDistance);
  await q.setProposals(sql, [...proposals].map(([entry, p]) => ({ id: entry, outcome: p.outcome, item: p.itemId, version: p.versionId, entry: p.entryId, confidence: p.confidence, likeness: p.likeness, caution: p.caution })));
}
