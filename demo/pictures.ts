/**
 * The demo's pictures, made in as many threads as there are processors while the rest of the demo is loaded: each takes
 * seconds, and hangs on nothing but the program. ETAGERE_DEMO_PICTURES names a folder in which they are kept for the next
 * demo of the same program; the tests load more than one.
 */
import { existsSync } from 'node:fs';
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { programOf } from '@/server/program';

export interface PictureName {
  of: 'reference' | 'camera' | 'hdr';
  /** its place in the list of its kind */ at: number;
}
export type PictureAnswer = { bytes: Uint8Array } | { fault: string };

const MOST_THREADS = 4;

/** The folder of this very program's pictures; null where none are kept. */
async function folderOfKept(): Promise<string | null> {
  const folder = process.env.ETAGERE_DEMO_PICTURES;
  const stamp = programOf('.stamp');
  if (!folder || !existsSync(stamp)) return null;
  const own = join(folder, await readFile(stamp, 'utf8'));
  await mkdir(own, { recursive: true });
  return own;
}

export class Pictures {
  private readonly asked = new Map<string, Promise<Uint8Array>>();
  private readonly threads = new Set<Worker>();
  private readonly free: Worker[] = [];
  private readonly waiting: ((thread: Worker) => void)[] = [];

  private constructor(private readonly kept: string | null) {}

  /** Begins to make these, in this order. */
  static async begin(names: readonly PictureName[]): Promise<Pictures> {
    const pictures = new Pictures(await folderOfKept());
    for (const name of names) void pictures.bytes(name).catch(() => {});
    return pictures;
  }

  /** The file of a picture: PNG, DNG or TIFF. Rejects where it could not be made. */
  bytes(name: PictureName): Promise<Uint8Array> {
    const key = `${name.of}-${name.at}`;
    const asked = this.asked.get(key) ?? this.keptOrMade(name, key);
    this.asked.set(key, asked);
    return asked;
  }

  async end(): Promise<void> {
    await Promise.all([...this.threads].map((thread) => thread.terminate()));
  }

  private async keptOrMade(name: PictureName, key: string): Promise<Uint8Array> {
    if (!this.kept) return this.made(name);
    const file = join(this.kept, key);
    if (existsSync(file)) return new Uint8Array(await readFile(file));
    const bytes = await this.made(name);
    await writeFile(`${file}.${process.pid}`, bytes);
    await rename(`${file}.${process.pid}`, file);
    return bytes;
  }

  private async made(name: PictureName): Promise<Uint8Array> {
    const thread = await this.thread();
    try {
      return await answered(thread, name);
    } finally {
      // one that has broken is not given to the next
      const next = this.waiting.shift();
      const fit = this.threads.has(thread) ? thread : null;
      if (next) next(fit ?? this.start());
      else if (fit) this.free.push(fit);
    }
  }

  private start(): Worker {
    const thread = new Worker(programOf('demo-pictures.mjs'));
    this.threads.add(thread);
    for (const end of ['error', 'exit']) thread.on(end, () => this.threads.delete(thread));
    return thread;
  }

  private thread(): Promise<Worker> {
    const free = this.free.pop();
    if (free) return Promise.resolve(free);
    if (this.threads.size < Math.min(MOST_THREADS, availableParallelism())) return Promise.resolve(this.start());
    return new Promise((done) => this.waiting.push(done));
  }
}

/** What a thread answers; rejects where it could not, or ends before it has. */
function answered(thread: Worker, name: PictureName): Promise<Uint8Array> {
  return new Promise((done, failed) => {
    const broken = (error: unknown): void =>
      failed(error instanceof Error ? error : new Error('the thread that makes pictures has ended'));
    thread.once('error', broken);
    thread.once('exit', broken);
    thread.once('message', (answer: PictureAnswer) => {
      thread.off('error', broken);
      thread.off('exit', broken);
      if ('bytes' in answer) done(answer.bytes);
      else failed(new Error(answer.fault));
    });
    thread.postMessage(name);
  });
}
