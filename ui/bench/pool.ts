'use client';
/** Two workers that render cells: what is in view first, and of a cell only what was asked for last. */
import { useEffect, useState } from 'react';
import type { BenchAnswer, BenchRequest, CellSpec } from '@/browser-workers/bench.worker';

export type Rendered = Extract<BenchAnswer, { figures: unknown }>;
export interface CellFault {
  message: string;
  remedy: string;
}
interface Job {
  key: string;
  first: boolean;
  request: (id: number) => BenchRequest;
  done: (a: BenchAnswer) => void;
}

/** Jobs that a worker has at once: while one waits for the server, another is computed. */
const DEPTH = 3;

export class Pool {
  private readonly workers: { worker: Worker; busy: Set<number> }[] = [];
  private readonly waiting: Job[] = [];
  private readonly running = new Map<number, Job>();
  private next = 0;

  constructor(count = 2) {
    for (let i = 0; i < count; i++) {
      const worker = new Worker(new URL('../../browser-workers/bench.worker.ts', import.meta.url), {
        type: 'module',
        name: 'bench',
      });
      const slot = { worker, busy: new Set<number>() };
      worker.onmessage = (event: MessageEvent<BenchAnswer>) => {
        slot.busy.delete(event.data.id);
        const job = this.running.get(event.data.id);
        this.running.delete(event.data.id);
        job?.done(event.data);
        this.go();
      };
      worker.onerror = () => {
        for (const id of slot.busy) {
          const job = this.running.get(id);
          this.running.delete(id);
          job?.done({ id, error: { message: 'The renderer stopped.', remedy: 'Reload the page.' } });
        }
        slot.busy.clear();
      };
      this.workers.push(slot);
    }
  }
  /** Whose cell it is: those of one frame go to one worker where they can, which then has the frame already. */
  private ownerOf(job: Job): number {
    return (parseInt(job.key.slice(32, 36), 16) || 0) % this.workers.length;
  }
  /** For a free worker: what is in view before what is not, its own frames before others. */
  private nextFor(n: number): number {
    const rank = (j: Job): number => (j.first ? 0 : 2) + (this.ownerOf(j) === n ? 0 : 1);
    return this.waiting.reduce((best, j, i) => (best < 0 || rank(j) < rank(this.waiting[best]!) ? i : best), -1);
  }
  private go(): void {
    for (;;) {
      const least = Math.min(...this.workers.map((w) => w.busy.size));
      const n = least < DEPTH ? this.workers.findIndex((w) => w.busy.size === least) : -1;
      const at = n < 0 ? -1 : this.nextFor(n);
      if (at < 0) return;
      const slot = this.workers[n]!;
      const job = this.waiting.splice(at, 1)[0]!;
      const id = ++this.next;
      slot.busy.add(id);
      this.running.set(id, job);
      slot.worker.postMessage(job.request(id));
    }
  }
  /** `key` names the cell: a newer request replaces one that still waits. */
  ask(key: string, first: boolean, request: (id: number) => BenchRequest): Promise<BenchAnswer> {
    return new Promise((done) => {
      const at = this.waiting.findIndex((j) => j.key === key);
      if (at >= 0) this.waiting.splice(at, 1);
      this.waiting.push({ key, first, request, done });
      this.go();
    });
  }
  /** What still waits under such keys is not wanted any more. */
  drop(test: (key: string) => boolean): void {
    for (let i = this.waiting.length - 1; i >= 0; i--) if (test(this.waiting[i]!.key)) this.waiting.splice(i, 1);
  }
  pick(cell: CellSpec, x: number, y: number): Promise<BenchAnswer> {
    return this.ask(`pick ${Math.random()}`, true, (id) => ({ id, pick: cell, x, y }));
  }
  end(): void {
    for (const w of this.workers) w.worker.terminate();
  }
}

/** On a page that opens with the bench, the workers start while the page is still being woken. */
let early: Pool | null = typeof window !== 'undefined' && location.pathname === '/bench' ? new Pool() : null;

export function usePool(): Pool | null {
  const [pool, setPool] = useState<Pool | null>(null);
  useEffect(() => {
    const pool = early ?? new Pool();
    early = null;
    queueMicrotask(() => setPool(pool));
    return () => pool.end();
  }, []);
  return pool;
}
