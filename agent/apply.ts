/**
 * Carries out a plan as a transaction on a file system that has none: contents are staged and verified, what will be
 * overwritten is kept, every deed is announced in the journal, files are replaced by rename. Run again after a crash, it
 * finishes what was begun. A file that changed since the plan was made is a conflict, reported and left alone.
 */
import { must } from '@/core/must';
import { constants } from 'node:fs';
import { copyFile, lstat, mkdir, open, readdir, readFile, rename, rm, rmdir, writeFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import type { Operation, OperationResult, Plan } from '@/core/sync/protocol';
import { bundleListOf, entryBelow } from '@/core/sync/bundle';
import { bytesThere } from './download';
import { BrokenOff, NotNow, ServerError } from './faults';
import { hashFile, hashOfHandle, inside, stateOf, syncFolder, Unsafe } from './files';
import { Journal, type Fact } from './journal';
import { EntryTarget, FileTarget, type Target } from './targets';

export interface ApplyContext {
  root: string;
  state: string;
  /** Folders, and single files, that may be written, root-relative. */
  places: readonly string[];
  fetch(sha256: string, to: string): Promise<void>;
  /** Whose bundle would be overwritten if this path were written now: the editor that runs; null where none does. */
  running?(path: string): Promise<string | null>;
  /** Called before each step with its name; tests end the process here. */
  step?(name: string): void;
}

const partOf = (target: string, operation: number): string =>
  join(dirname(target), `.etagere-${operation}-${basename(target).slice(0, 60)}.part`);

/** A file of our own, new under its name: neither one that lies there nor a link is written through. */
const FRESH = constants.O_RDWR | constants.O_CREAT | constants.O_EXCL | constants.O_NOFOLLOW;

/** So many rounds may break over one file; then it is told as failed, and those after it are gone on with. */
const MOST_BROKEN = 10;

const failures: Record<string, string> = {
  ENOSPC: 'the disk is full',
  EACCES: 'the folder cannot be written',
  EPERM: 'the folder cannot be written',
  EROFS: 'the folder cannot be written',
  EBUSY: 'the file is held open',
};
const whyFailed = ({ code, message }: NodeJS.ErrnoException): string => failures[code ?? ''] ?? message.slice(0, 300);

/** A plan that is under way: what was done of it so far. */
export interface OpenPlan {
  plan: Plan;
  results: OperationResult[];
  ended: boolean;
}

export class Applier {
  private readonly journal: Journal;
  constructor(private readonly context: ApplyContext) {
    this.journal = new Journal(join(context.state, 'journal'));
  }

  private step(name: string): void {
    this.context.step?.(name);
  }
  private kept = (sha: string): string => join(this.context.state, 'kept', sha);
  private staged = (plan: string, n: number): string => join(this.context.state, 'stage', plan, String(n));

  /** A plan that was begun before, with the results so far; null when nothing is open. */
  async open(): Promise<OpenPlan | null> {
    const facts = await this.journal.read();
    const begin = facts.find((f) => f.fact === 'begin');
    if (!begin) return null;
    return {
      plan: begin.plan,
      results: facts.flatMap((f) => (f.fact === 'result' ? [f.result] : [])),
      ended: facts.some((f) => f.fact === 'end'),
    };
  }

  /**
   * Applies a plan, or goes on with the one that is open. What cannot be done now has no result: the server asks for it
   * again when it can be.
   */
  async apply(fresh: Plan | null): Promise<{ plan: Plan; results: OperationResult[]; later: Later[] }> {
    let facts = await this.journal.read();
    const begun = facts.find((f) => f.fact === 'begin');
    if (!begun) {
      if (!fresh) throw new Error('no plan is open');
      this.step('begin');
      facts = [{ fact: 'begin', plan: fresh }];
      await this.journal.restart(facts);
    } else await this.journal.restart(facts);
    const plan = begun?.plan ?? must(fresh);
    const later: Later[] = [];
    for (const op of plan.operations) {
      if (facts.some((f) => f.fact === 'result' && f.result.n === op.n)) continue;
      const result = await this.one(plan, op, facts).catch(notingNotNow(op, later));
      if (!result) continue;
      this.step('result');
      await this.journal.write({ fact: 'result', result });
      facts.push({ fact: 'result', result });
    }
    this.step('end');
    if (!facts.some((f) => f.fact === 'end')) await this.journal.write({ fact: 'end' });
    await rm(join(this.context.state, 'stage', plan.id), { recursive: true, force: true });
    return { plan, results: facts.flatMap((f) => (f.fact === 'result' ? [f.result] : [])), later };
  }

  /** Forgets the open plan: what it did stays, what it was in the middle of leaves no trace. */
  async drop(): Promise<void> {
    const open = await this.open();
    if (!open) return;
    for (const op of open.plan.operations) {
      const target = await this.targetOf(op).catch(() => null);
      if (target) await rm(partOf(target.file, op.n), { force: true });
    }
    await rm(join(this.context.state, 'stage', open.plan.id), { recursive: true, force: true });
    await this.close();
  }

  /** Marks the open plan as reported; the next one may come. */
  async close(): Promise<void> {
    this.step('close');
    await this.journal.close(this.context.state);
  }

  private async one(plan: Plan, op: Operation, facts: Fact[]): Promise<OperationResult> {
    let target: Target | null = null;
    try {
      target = await this.targetOf(op);
      if (!target) return answer(op, 'failed', 'lies outside the folders that the descriptors allow', null);
      return (await this.settledBefore(op, target, facts)) ?? (await this.carryOut(plan, op, target, facts));
    } catch (error) {
      if (error instanceof BrokenOff) throw error;
      if (error instanceof NotNow) {
        // an earlier run may have been killed over its half
        if (target) await rm(partOf(target.file, op.n), { force: true });
        throw error;
      }
      if (error instanceof Unsafe) return answer(op, 'conflict', error.message, null);
      return answer(op, 'failed', whyFailed(error as NodeJS.ErrnoException), null);
    }
  }

  /** What is there may have settled the operation already, or forbid it; null where it is to be carried out. */
  private async settledBefore(op: Operation, target: Target, facts: Fact[]): Promise<OperationResult | null> {
    const now = await target.state();
    const begun = facts.some((f) => f.fact === 'intent' && f.n === op.n);
    // the very same is there: nothing is to be done, and nobody is in conflict
    if (op.do === 'put' && now === op.sha256 && !begun)
      return { ...answer(op, 'done', '', now), at: await target.since() };
    if (now === op.expect) return null;
    // finished by an earlier run that could not say so any more
    if (begun && now === op.sha256) {
      await this.tidyParts(target.file, op.n);
      return answer(op, 'done', '', op.expect);
    }
    return conflict(
      op,
      now === null
        ? 'was taken away since the plan was made'
        : 'was changed here since the plan was made; it is left alone',
      now,
    );
  }

  private async carryOut(plan: Plan, op: Operation, target: Target, facts: Fact[]): Promise<OperationResult> {
    await target.ready();
    await this.waitForQuit(op);
    if (op.do === 'put') await this.stage(plan, op, facts);
    if (op.expect !== null) await this.keep(target, op.expect, op, facts);
    // a bundle is its editor's to make
    const madeFolders = target.goesWhole ? await this.missingFolders(dirname(target.path)) : [];
    this.step('intent');
    await this.journal.write({ fact: 'intent', n: op.n, madeFolders });
    facts.push({ fact: 'intent', n: op.n, madeFolders });
    if (op.do === 'remove' && target.goesWhole) {
      await this.removeFile(target);
      return answer(op, 'done', '', op.expect);
    }
    const changed = await this.replace(plan, op, target, madeFolders);
    return changed
      ? conflict(op, 'was changed here while the plan was carried out; it is left alone', changed.now)
      : answer(op, 'done', '', op.expect);
  }

  /** What the operation is done to; null where the descriptors allow nothing to be written. */
  private async targetOf(op: Operation): Promise<Target | null> {
    const { root, places } = this.context;
    const place = places.find((one) => op.path.startsWith(`${one}/`) || op.path === one);
    if (place === undefined) return null;
    const entry = entryBelow(place, op.path);
    if (entry) return new EntryTarget(await inside(root, entry.file), root, entry);
    return bundleListOf(place) ? null : new FileTarget(await inside(root, op.path), op.path);
  }

  /** An editor that writes its bundle anew when it quits would overwrite what is written while it runs. */
  private async waitForQuit(op: Operation): Promise<void> {
    const running = await this.context.running?.(op.path);
    if (running) throw new NotNow(`${running} is running, and would write over it when it quits`);
  }

  private async removeFile(target: Target): Promise<void> {
    this.step('remove');
    await rm(target.file);
    await syncFolder(dirname(target.file));
    this.step('removed');
    await this.tidyFolders(dirname(target.path));
  }

  /** Writes beside the place and puts it in by one rename; answers with what is there where that was changed meanwhile. */
  private async replace(
    plan: Plan,
    op: Operation,
    target: Target,
    madeFolders: string[],
  ): Promise<{ now: string | null } | null> {
    if (madeFolders.length) {
      await this.rememberFolders(madeFolders);
      this.step('mkdir');
      await mkdir(dirname(target.file), { recursive: true });
    }
    const part = partOf(target.file, op.n);
    this.step('copy');
    await this.writePart(plan, op, target, part);
    // the last look, as late as can be: whatever was written here meanwhile is not overwritten
    await target.settle().catch(droppingPart(part));
    const now = await target.state();
    if (now !== op.expect) {
      await rm(part, { force: true });
      return { now };
    }
    this.step('rename');
    await rename(part, target.file).catch(droppingPart(part));
    await syncFolder(dirname(target.file));
    this.step('renamed');
    return null;
  }

  /**
   * The staged contents beside their target, under a name of ours. They are written and looked at through one handle, and
   * what bears the name at the end has to be that very file: whatever is planted there meanwhile is not followed.
   */
  private async writePart(plan: Plan, op: Operation, target: Target, part: string): Promise<void> {
    await inside(this.context.root, target.path);
    await rm(part, { force: true });
    const handle = await open(part, FRESH, 0o644).catch(droppingPart(part));
    try {
      const meant = await target.compose(handle, op.do === 'put' ? this.staged(plan.id, op.n) : null);
      await handle.sync();
      if ((await hashOfHandle(handle)) !== (meant ?? op.sha256))
        throw new Error('the copy differs from what was staged');
      const [written, named] = await Promise.all([handle.stat(), lstat(part)]);
      if (written.ino !== named.ino || written.dev !== named.dev)
        throw new Unsafe('somebody changed the file while it was being written; it is left alone');
    } catch (error) {
      if (error instanceof Unsafe) throw error;
      return await droppingPart(part)(error);
    } finally {
      await handle.close();
    }
  }

  /** What breaks on the way is tried again in later rounds, up to a limit; what the server refuses is not. */
  private async fetch(op: Operation, to: string, facts: Fact[]): Promise<void> {
    try {
      await this.context.fetch(must(op.sha256), to);
    } catch (error) {
      const { code = '', message } = error as NodeJS.ErrnoException;
      if (error instanceof ServerError || code in failures) throw error;
      const broken = { fact: 'broken', n: op.n } as const;
      await this.journal.write(broken);
      facts.push(broken);
      const times = facts.filter((fact) => fact.fact === 'broken' && fact.n === op.n).length;
      if (times >= MOST_BROKEN) throw new Error(`its contents could not be fetched, ${times} times: ${message}`);
      throw new BrokenOff(message);
    }
  }

  /** Fetches contents, from what was kept here if it was, and verifies them by hash. */
  private async stage(plan: Plan, op: Operation, facts: Fact[]): Promise<void> {
    const to = this.staged(plan.id, op.n);
    if ((await stateOf(to)) === op.sha256) return;
    this.step('stage');
    await mkdir(dirname(to), { recursive: true });
    const isGoneOnWith = (await bytesThere(to)) > 0;
    if ((await stateOf(this.kept(must(op.sha256)))) === op.sha256) await copyFile(this.kept(must(op.sha256)), to);
    else await this.fetch(op, to, facts);
    if ((await hashFile(to)) !== op.sha256) {
      await rm(to, { force: true });
      // what was there from before may have been half written: it is fetched once more as a whole
      if (isGoneOnWith) throw new BrokenOff('what had come before was damaged; it is fetched anew');
      throw new Error('the contents arrived damaged');
    }
    const handle = await open(to, 'r+');
    try {
      await handle.sync();
    } finally {
      await handle.close();
    }
    await this.journal.write({ fact: 'staged', n: op.n });
  }

  private async keep(target: Target, sha: string, op: Operation, facts: Fact[]): Promise<void> {
    if (facts.some((f) => f.fact === 'kept' && f.n === op.n)) return;
    this.step('keep');
    const to = this.kept(sha);
    if ((await stateOf(to)) !== sha) {
      await mkdir(dirname(to), { recursive: true });
      await target.copyTo(`${to}.part`);
      const handle = await open(`${to}.part`, 'r+');
      try {
        await handle.sync();
      } finally {
        await handle.close();
      }
      if ((await hashFile(`${to}.part`)) !== sha) throw new Error('the file changed while it was being kept');
      await rename(`${to}.part`, to);
    }
    await this.journal.write({ fact: 'kept', n: op.n, before: sha });
  }

  private async missingFolders(folder: string): Promise<string[]> {
    const missing: string[] = [];
    for (let at = folder; at && at !== '.'; at = dirname(at)) {
      if (await lstat(join(this.context.root, at)).catch(() => null)) break;
      missing.push(at);
    }
    return missing;
  }

  private async folders(): Promise<string[]> {
    return JSON.parse(await readFile(join(this.context.state, 'folders.json'), 'utf8').catch(() => '[]')) as string[];
  }
  private async rememberFolders(made: string[]): Promise<void> {
    const file = join(this.context.state, 'folders.json');
    const all = new Set([...(await this.folders()), ...made]);
    await writeFile(`${file}.part`, JSON.stringify([...all]));
    await rename(`${file}.part`, file);
  }
  /** Folders that we made go again when they are empty; others stay. */
  private async tidyFolders(folder: string): Promise<void> {
    const made = new Set(await this.folders());
    for (let at = folder; at && at !== '.' && made.has(at); at = dirname(at)) {
      const full = join(this.context.root, at);
      if ((await readdir(full).catch(() => ['?'])).length) break;
      await rmdir(full).catch(() => {});
    }
  }
  private async tidyParts(target: string, operation: number): Promise<void> {
    await rm(partOf(target, operation), { force: true });
    await this.tidyFolders(this.relative(dirname(target)));
  }
  private relative(full: string): string {
    return full.startsWith(this.context.root) ? full.slice(this.context.root.length).replace(/^\/+/, '') : full;
  }
}

const answer = (
  { n }: Operation,
  outcome: OperationResult['outcome'],
  message: string,
  before: string | null,
): OperationResult => ({ n, outcome, message, before, at: new Date().toISOString() });

/** @param now what is there, of which nothing is known where it is no content */
const conflict = (op: Operation, message: string, now: string | null): OperationResult =>
  answer(op, 'conflict', message, now === 'occupied' ? null : now);

/** An operation whose time has not come, and why. */
export interface Later {
  n: number;
  message: string;
}

const notingNotNow =
  ({ n }: Operation, later: Later[]) =>
  (error: unknown): null => {
    if (!(error instanceof NotNow)) throw error;
    later.push({ n, message: error.message });
    return null;
  };

/** Half a file beside the target is of no use to anybody, least of all on a full disk: it goes before the fault is told. */
const droppingPart =
  (part: string) =>
  async (error: unknown): Promise<never> => {
    await rm(part, { force: true }).catch(() => {});
    throw error;
  };

/** The plan that takes back what a finished journal did, newest first. */
export function reversed(plan: Plan, results: readonly OperationResult[]): Plan {
  const done = plan.operations.flatMap((op) => {
    const result = results.find((one) => one.n === op.n && one.outcome === 'done');
    return result ? [{ op, before: result.before }] : [];
  });
  return {
    id: plan.id,
    operations: done.reverse().map(({ op, before }, operation) => ({
      n: operation,
      do: before ? 'put' : 'remove',
      place: op.place,
      path: op.path,
      sha256: before,
      size: 0,
      expect: op.sha256,
    })),
  };
}
