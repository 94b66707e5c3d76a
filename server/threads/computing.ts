/**
 * Threads that compute, a few for the process. Work waits for a free one; a task that does not come to an end is ended with
 * its thread, and told as such.
 */
import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import { Problem, type ToldProblem } from '@/core/problem';
import { programOf } from '../program';
import { ownBytes } from './buffers';
import type { TaskInput, TaskName, TaskResult } from './tasks';

export interface TaskRequest {
  name: TaskName;
  input: unknown;
}
export type TaskAnswer = { result: unknown } | { problem: ToldProblem } | { bug: string };

interface Waiting {
  name: TaskName;
  input: unknown;
  done: (result: unknown) => void;
  fail: (error: Error) => void;
}
interface Limits {
  threads: number;
  seconds: number;
  megabytes: number;
}
const MOST_THREADS = 4;
/** So many tasks run at a time in this process. */
export const threadsInUse = (): number =>
  Number(process.env.ETAGERE_THREADS ?? Math.min(MOST_THREADS, Math.max(1, availableParallelism() - 1)));
const usual = (): Limits => ({
  threads: threadsInUse(),
  seconds: 180,
  megabytes: 1536,
});

export class Computing {
  private readonly idle: Worker[] = [];
  private readonly waiting: Waiting[] = [];
  private busy = 0;

  constructor(
    private readonly limits: Limits = usual(),
    private readonly program = programOf('computing.mjs'),
  ) {}

  /** Rejects with a Problem where the task throws one, or takes too long or too much memory. */
  run<Name extends TaskName>(name: Name, input: TaskInput<Name>): Promise<TaskResult<Name>> {
    return new Promise((done, fail) => {
      this.waiting.push({ name, input, done: done as (result: unknown) => void, fail });
      this.next();
    });
  }

  async close(): Promise<void> {
    await Promise.all(this.idle.splice(0).map((thread) => thread.terminate()));
  }

  private next(): void {
    if (this.busy >= this.limits.threads) return;
    const waiting = this.waiting.shift();
    if (!waiting) return;
    this.busy++;
    void this.work(this.idle.pop() ?? this.begin(), waiting).finally(() => {
      this.busy--;
      this.next();
    });
  }

  private begin(): Worker {
    const thread = new Worker(this.program, { resourceLimits: { maxOldGenerationSizeMb: this.limits.megabytes } });
    // one that ends while it has nothing to do is not given anything any more
    thread.on('error', () => {});
    thread.on('exit', () => {
      const place = this.idle.indexOf(thread);
      if (place >= 0) this.idle.splice(place, 1);
    });
    return thread;
  }

  private async work(thread: Worker, { name, input, done, fail }: Waiting): Promise<void> {
    thread.ref();
    try {
      const answer = await this.answerOf(thread, { name, input: ownBytes(input) });
      // a thread that has nothing to do keeps no process alive
      thread.unref();
      this.idle.push(thread);
      if ('result' in answer) done(answer.result);
      else if ('problem' in answer) {
        const { code, message, where, remedy } = answer.problem;
        fail(new Problem(code, message, where, remedy));
      } else fail(new Error(`computing ${name}: ${answer.bug}`));
    } catch (error) {
      void thread.terminate();
      fail(error as Error);
    }
  }

  private answerOf(thread: Worker, request: TaskRequest): Promise<TaskAnswer> {
    const { seconds, megabytes } = this.limits;
    return new Promise((resolve, reject) => {
      const end = (settle: () => void) => {
        clearTimeout(timer);
        thread.off('message', onMessage);
        thread.off('error', onError);
        thread.off('exit', onExit);
        settle();
      };
      const refused = (what: string): Problem =>
        new Problem('limit-time', what, request.name, 'Choose fewer points, or a smaller file.');
      const timer = setTimeout(
        () => end(() => reject(refused(`This took longer than ${seconds} seconds.`))),
        seconds * 1000,
      );
      const onMessage = (answer: TaskAnswer) => end(() => resolve(answer));
      const onError = (error: NodeJS.ErrnoException) =>
        end(() =>
          reject(
            error.code === 'ERR_WORKER_OUT_OF_MEMORY'
              ? refused(`This took more than ${megabytes} MB of memory.`)
              : error,
          ),
        );
      const onExit = (code: number) => end(() => reject(new Error(`a computing thread ended with ${code}`)));
      thread.on('message', onMessage);
      thread.on('error', onError);
      thread.on('exit', onExit);
      thread.postMessage(request);
    });
  }
}

const kept = globalThis as typeof globalThis & { etagereComputing?: Computing };
/** Computes in a thread of the process. */
export const compute = <Name extends TaskName>(name: Name, input: TaskInput<Name>): Promise<TaskResult<Name>> =>
  (kept.etagereComputing ??= new Computing()).run(name, input);
