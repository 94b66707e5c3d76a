/** The job that reads an arrival: every file, whatever archive it lies in, into a table of entries with proposals. */
import { must } from '@/core/must';
import { randomUUID } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fingerprintDistance } from '@/core/look/fingerprint';
import { limits } from '@/core/pack/entry-rules';
import { propose } from '@/core/pack/propose';
import { archiveEditor } from '@/core/recognise';
import { Problem } from '@/core/problem';
import { storable } from '@/core/text';
import { blobHead, getBlob, hex, putBlobs, spoolBlob } from '../blobs/service';
import { passingFault } from '../db/faults';
import { pool, transaction, type Sql } from '../db/pool';
import { descriptors } from '../editors/service';
import { record } from '../activity/queries';
import { log } from '../log';
import { Cancelled, type JobContext } from '../jobs/service';
import { walkArchive, type ArchiveEvent } from './archive';
import { entryKeptOut, type Entry } from './arrival-entry';
import { copyTolerance } from '../studio/service';
import { heldFor, incoming } from './held-candidates';
import { reader } from './file-reader';
import { matchPack } from './releases';
import * as q from './queries';

type Known = Awaited<ReturnType<typeof descriptors>>;
/** What lies in an arrival, and what broke on the way to it. */
type Content = ArchiveEvent | { type: 'broken'; path: string; size: number; cause: unknown };
interface Made {
  row: q.NewEntry;
  bytes: Buffer | null;
  sha: Buffer | null;
}
const SINGLE_MOST = 256 * 2 ** 20;
const BATCH_FILES = 200;
const BATCH_BYTES = 8 * 2 ** 20;
const AHEAD_FILES = 32;
const AHEAD_BYTES = 16 * 2 ** 20;

/** Of several files under one path, each is shown: the second as "path (2)", and so on. */
function pathsApart(): (path: string) => string {
  const taken = new Set<string>();
  return (path) => {
    let free = path;
    for (let n = 2; taken.has(free); n++) free = `${path} (${n})`;
    taken.add(free);
    return free;
  };
}

/** Entries are written by the batch, one batch while the next is read. */
function batchesOf(arrival: string): { add: (made: Made) => Promise<void>; end: () => Promise<void> } {
  const apart = pathsApart();
  let batch: Made[] = [];
  let held = 0;
  let writing: Promise<unknown> = Promise.resolve();
  const flush = async () => {
    const now = batch;
    batch = [];
    held = 0;
    await writing;
    if (now.length) writing = writeBatch(arrival, now);
    writing.catch(() => {}); // told when it is awaited
  };
  return {
    async add(made) {
      batch.push({ ...made, row: { ...made.row, path: apart(made.row.path) } });
      held += made.bytes?.length ?? 0;
      if (batch.length >= BATCH_FILES || held >= BATCH_BYTES) await flush();
    },
    async end() {
      await flush();
      await writing;
    },
  };
}

/** Of a batch that cannot be written, each file by itself: those that cannot are refused, the others stay. */
async function writeBatch(arrival: string, batch: Made[]): Promise<void> {
  try {
    await write(arrival, batch);
  } catch (error) {
    if (passingFault(error)) throw error;
    for (const made of batch)
      await write(arrival, [made]).catch((cause: unknown) => {
        if (passingFault(cause)) throw cause;
        return write(arrival, [{ ...refusedFor(made.row, cause), bytes: null, sha: null }]);
      });
  }
}

const write = (arrival: string, batch: Made[]): Promise<void> =>
  transaction(async (tx) => {
    await q.withoutWaiting(tx);
    await putBlobs(
      tx,
      batch.flatMap((made) => (made.bytes && made.sha ? [{ sha256: made.sha, bytes: made.bytes }] : [])),
    );
    await q.insertEntries(
      tx,
      arrival,
      batch.map((made) => storable(made.row)),
    );
  });

/** A file over which something of ours broke, as a refused one; the log bears the same number. */
function refusedFor({ path, size }: { path: string; size: number }, cause: unknown): { row: q.NewEntry } {
  const incident = randomUUID().slice(0, 8);
  log.error({ err: cause, incident, path }, 'a file of an arrival could not be read');
  const problem = new Problem(
    'entry-broken',
    'This file could not be read, which is a fault of Etagere’s.',
    `${path}, incident ${incident}`,
    'The other files are not touched by it. Tell the people who look after Etagere this number.',
  );
  return { row: entryKeptOut({ type: 'refused', path, size, problem, sha256: null }).row };
}

/** Whether the arrival waits for this very job: it was not read already, nor settled, nor given to another. */
const isAwaited = (arrival: q.ArrivalRow | undefined, job: JobContext): arrival is q.ArrivalRow =>
  arrival?.status === 'reading' && arrival.job_id === job.id;

/** What becomes of an arrival whose reading nobody goes on with. */
export async function giveUpReading(sql: Sql, payload: Record<string, unknown>, problem: Problem): Promise<void> {
  const id = payload.arrival as string;
  if ((await q.arrivalById(sql, id, true))?.status !== 'reading') return;
  await q.clearEntries(sql, id);
  await q.arrivalStatus(sql, id, 'failed', problem.toJSON());
}

/** Idempotent: it begins anew each time. */
export async function readArrival(job: JobContext): Promise<{ entries: number }> {
  const sql = pool();
  const id = job.payload.arrival as string;
  const arrival = await q.arrivalById(sql, id);
  if (!isAwaited(arrival, job)) return { entries: 0 };
  const known = await descriptors();
  const worker = { personId: job.personId, name: 'worker' };
  let done = 0;
  let entries = 0;
  await q.clearEntries(sql, id);
  try {
    await job.progress(0, 'begun'); // stopped before it began, it says so here
    const batches = batchesOf(id);
    const take = async (made: Made) => {
      await batches.add(made);
      entries++;
      done += made.row.size;
      await job.progress(Math.min(0.9, (0.9 * done) / (done + arrival.size)), `${entries} files read`);
    };
    // some are unpacked ahead of the one that is being read
    const ahead: { size: number; made: Promise<Made> }[] = [];
    let waiting = 0;
    const next = async () => {
      const member = must(ahead.shift());
      waiting -= member.size;
      await take(await member.made);
    };
    for await (const archiveEvent of contentsOf(arrival, await q.filesOf(sql, id), known)) {
      const made = madeOf(archiveEvent, known);
      const size = archiveEvent.type === 'file' ? archiveEvent.bytes.length : 0;
      made.catch(() => {}); // told when it is awaited
      ahead.push({ size, made });
      waiting += size;
      while (ahead.length > AHEAD_FILES || (ahead.length > 1 && waiting > AHEAD_BYTES)) await next();
    }
    while (ahead.length) await next();
    await batches.end();
    await job.progress(0.92, 'comparing with what is held');
    await transaction(async (tx) => {
      // discarded while it was being read
      if (!isAwaited(await q.arrivalById(tx, id, true), job)) throw new Cancelled();
      await proposeAll(tx, id);
      await matchPack(tx, id);
      await q.arrivalStatus(tx, id, 'ready');
      await record(tx, worker, 'arrival', id, 'read', null, { entries });
    });
    return { entries };
  } catch (error) {
    const problem = problemIn(error, arrival.name);
    await transaction(async (tx) => {
      if (!isAwaited(await q.arrivalById(tx, id, true), job)) return;
      await q.clearEntries(tx, id);
      await q.arrivalStatus(tx, id, 'failed', problem.toJSON());
      await record(tx, worker, 'arrival', id, problem.code === 'stopped' ? 'stopped' : 'failed', null, {
        code: problem.code,
      });
    });
    throw error instanceof Cancelled ? error : problem;
  }
}

/** What a person is told of a reading that ended early. */
function problemIn(error: unknown, name: string): Problem {
  if (error instanceof Problem) return error;
  if (error instanceof Cancelled)
    return new Problem(
      'stopped',
      'Reading was stopped; nothing of it was taken in.',
      name,
      'Read it again, or discard it.',
    );
  const passing = passingFault(error);
  if (passing) return new Problem(passing.code, passing.message, name, 'Read it again in a moment.');
  const incident = randomUUID().slice(0, 8);
  log.error({ err: error, incident }, 'an arrival could not be read');
  return new Problem(
    'bug',
    'Something went wrong that is not your doing; nothing of it was taken in.',
    `${name}, incident ${incident}`,
    'Read it again; if it stays so, tell the people who look after Etagere this number.',
  );
}

/** Every file of the arrival in turn; a ZIP that is no editor's own kind of file is walked, below its own name where there are others. */
async function* contentsOf(arrival: q.ArrivalRow, files: q.FileRow[], known: Known): AsyncGenerator<Content> {
  for (const waiting of files) {
    const sha = must(waiting.sha256);
    const zip = (await blobHead(sha, 4)).toString('latin1') === 'PK\u0003\u0004';
    if (waiting.size > SINGLE_MOST && !zip) {
      yield {
        type: 'refused',
        path: waiting.path,
        size: waiting.size,
        problem: new Problem(
          'limit-size',
          'A single file may have 256 MB.',
          waiting.path,
          'If it is an archive, pack it as a ZIP.',
        ),
      };
      continue;
    }
    if (!zip || (waiting.size <= limits.nestedBytes && archiveEditor(await getBlob(sha), known))) {
      yield { type: 'file', path: waiting.path, bytes: await getBlob(sha), sha256: sha };
      continue;
    }
    const folder = await mkdtemp(join(tmpdir(), 'etagere-arrival-'));
    const file = join(folder, 'pack');
    try {
      await spoolBlob(sha, file);
      for await (const archiveEvent of walkArchive(file, (bytes) => archiveEditor(bytes, known) !== null))
        yield files.length === 1 ? archiveEvent : { ...archiveEvent, path: `${waiting.path}/${archiveEvent.path}` };
    } catch (error) {
      if (passingFault(error) || (files.length === 1 && error instanceof Problem)) throw error;
      if (error instanceof Problem) yield { type: 'refused', path: waiting.path, size: waiting.size, problem: error };
      else yield { type: 'broken', path: waiting.path, size: waiting.size, cause: error };
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  }
}

/** Told and read in the reading thread; the bytes stay here. Whatever breaks over one file refuses that file alone. */
async function madeOf(content: Content, known: Known): Promise<Made> {
  if (content.type === 'broken') return { ...refusedFor(content, content.cause), bytes: null, sha: null };
  try {
    return await readContent(content, known);
  } catch (error) {
    if (passingFault(error)) throw error;
    const size = content.type === 'file' ? content.bytes.length : content.size;
    return { ...refusedFor({ path: content.path, size }, error), bytes: null, sha: null };
  }
}

async function readContent(archiveEvent: ArchiveEvent, known: Known): Promise<Made> {
  const made: Entry =
    archiveEvent.type === 'file'
      ? await reader().read(archiveEvent.path, archiveEvent.bytes, hex(archiveEvent.sha256), known)
      : entryKeptOut(archiveEvent.type === 'refused' ? { ...archiveEvent, sha256: null } : archiveEvent);
  return {
    row: made.row,
    bytes: made.take && archiveEvent.type === 'file' ? archiveEvent.bytes : null,
    sha: made.take && archiveEvent.type === 'file' ? archiveEvent.sha256 : null,
  };
}

/**
 * What each entry is to what is held and to the others. Frames and descriptors are duplicates by bytes alone. A rendered
 * picture beside looks or presets is the supplier's preview of them, and not what a studio judges by.
 */
export async function proposeAll(sql: Sql, id: string): Promise<void> {
  const entries = await q.entriesOf(sql, id);
  const takeable = entries.filter((e) => e.outcome === 'new').map(incoming);
  if (takeable.length) await q.leaveOutPictures(sql, id);
  const index = await heldFor(sql, takeable);
  const proposals = propose(takeable, index, fingerprintDistance, await copyTolerance(sql));
  await q.setProposals(
    sql,
    [...proposals].map(([entry, proposal]) => ({
      id: entry,
      outcome: proposal.outcome,
      item: proposal.itemId,
      version: proposal.versionId,
      entry: proposal.entryId,
      confidence: proposal.confidence,
      likeness: proposal.likeness,
      caution: proposal.caution,
    })),
  );
}
