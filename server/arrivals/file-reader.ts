/**
 * Files are told and read in a thread of their own, while this one unpacks, hashes and writes. A reader that does not come
 * to an end, or that takes more memory than it may, is ended with its thread, and its file alone is refused.
 */
import { must } from '@/core/must';
import { Worker } from 'node:worker_threads';
import type { Descriptor } from '@/core/editor/descriptor';
import { Problem } from '@/core/problem';
import { programOf } from '../program';
import { entryKeptOut, type Entry } from './arrival-entry';

export interface ReadRequest {
  n: number;
  path: string;
  bytes: Uint8Array;
  sha: string;
  /** sent with the first file only, and when they have changed */ descriptors: readonly Descriptor[] | null;
}
export type ReadAnswer = { n: number; entry: Entry } | { n: number; bug: string };
interface Waiting extends Omit<ReadRequest, 'descriptors'> {
  known: readonly Descriptor[];
  done: (e: Entry) => void;
  fail: (e: Error) => void;
}

const again =
  'Look whether it is what it says it is, and ask the supplier for it anew; the rest of the arrival is read.';

export class Reader {
  private thread: Worker | null = null;
  private queue: Waiting[] = [];
  private told: readonly Descriptor[] | null = null;
  private timer: NodeJS.Timeout | null = null;
  private count = 0;
  constructor(
    private readonly limits: { seconds: number; megabytes: number } = { seconds: 60, megabytes: 1024 },
    private readonly program = programOf('reader.mjs'),
  ) {}

  /** Answers come in the order of asking. Rejects only where a reader has a bug. */
  read(path: string, bytes: Uint8Array, sha: string, known: readonly Descriptor[]): Promise<Entry> {
    return new Promise((done, fail) => {
      const waiting: Waiting = { n: ++this.count, path, bytes, sha, known, done, fail };
      this.queue.push(waiting);
      this.send(waiting);
      if (this.queue.length === 1) this.watch();
    });
  }

  /** Ends the thread; what is still asked is refused. */
  async close(): Promise<void> {
    const worker = this.thread;
    this.thread = null;
    this.watch();
    await worker?.terminate();
  }

  private send(waiting: Waiting): void {
    if (!this.thread) this.begin();
    const descriptors = this.told === waiting.known ? null : waiting.known;
    this.told = waiting.known;
    const bytes = new Uint8Array(waiting.bytes); // a view would take all that lies behind it along
    must(this.thread).postMessage(
      { n: waiting.n, path: waiting.path, bytes, sha: waiting.sha, descriptors } satisfies ReadRequest,
      [bytes.buffer],
    );
  }

  private begin(): void {
    this.told = null;
    const worker = (this.thread = new Worker(this.program, {
      resourceLimits: { maxOldGenerationSizeMb: this.limits.megabytes },
    }));
    worker.on('message', (readAnswer: ReadAnswer) => {
      const i = this.queue.findIndex((w) => w.n === readAnswer.n);
      const [waiting] = i < 0 ? [] : this.queue.splice(i, 1);
      if (waiting) {
        if ('bug' in readAnswer) waiting.fail(new Error(`reading ${waiting.path}: ${readAnswer.bug}`));
        else waiting.done(readAnswer.entry);
      }
      this.watch();
    });
    let fault: NodeJS.ErrnoException | null = null;
    worker.on('error', (error: NodeJS.ErrnoException) => {
      fault = error;
    });
    // not at the fault itself: only by its end have the answers come that the thread gave before
    worker.on('exit', (code) => {
      if (worker !== this.thread) return;
      this.lost(this.whyLost(fault ?? new Error(`the reading thread ended with ${code}`)));
    });
  }

  private whyLost(fault: NodeJS.ErrnoException): Error {
    if (fault.code !== 'ERR_WORKER_OUT_OF_MEMORY') return fault;
    const most = `${this.limits.megabytes} MB of memory`;
    return new Problem('limit-memory', `Reading this file took more than ${most}.`, this.queue[0]?.path ?? '', again);
  }

  /** The first in the queue is the one that is being read. */
  private watch(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    const first = this.queue[0];
    // while it has something to read it keeps the process alive, and no longer
    if (first) this.thread?.ref();
    else this.thread?.unref();
    if (first && this.thread)
      this.timer = setTimeout(() => {
        void this.thread?.terminate();
        this.lost(
          new Problem(
            'limit-time',
            `Reading this file took longer than ${this.limits.seconds} seconds.`,
            first.path,
            again,
          ),
        );
      }, this.limits.seconds * 1000);
  }

  /** The thread is gone: the file that it was at has its answer, the others are asked anew. */
  private lost(why: Error): void {
    this.thread = null;
    const first = this.queue.shift();
    if (first) {
      if (why instanceof Problem)
        first.done(
          entryKeptOut({ type: 'refused', path: first.path, size: first.bytes.length, sha256: null, problem: why }),
        );
      else first.fail(why);
    }
    for (const w of this.queue) this.send(w);
    this.watch();
  }
}

const kept = globalThis as typeof globalThis & { etagereReader?: Reader };
/** One for the process. */
export const reader = (): Reader => (kept.etagereReader ??= new Reader());
