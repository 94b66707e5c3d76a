'use client';
/** Two workers that render cells: what is in view first, and of a cell only what was asked for last. */
import { useEffect, useState } from 'react';
import type { BenchAnswer, BenchRequest, CellSpec } from '@/workers/bench.worker';

export type Rendered = Exclude<BenchAnswer, { error: unknown } | { neutral: unknown }>;
export interface CellFault { message: string; remedy: string }
interface Job { key: string; first: boolean; request: (id: number) => BenchRequest; done: (a: BenchAnswer) => void }

export class Pool {
  private readonly workers: { worker: Worker; busy: number | null }[] = [];
  private readonly waiting: Job[] = [];
  private readonly running = new Map<number, Job>();
  private next = 0;

  constructor(count = 2) {
    for (let i = 0; i < count; i++) {
      const worker = new Worker(new URL('../../workers/bench.worker.ts', import.meta.url), { type: 'module', name: 'bench' }), slot = { worker, busy: null as number | null };
      worker.onmessage = (e: MessageEvent<BenchAnswer>) => { slot.busy = null; const job = this.running.get(e.data.id); this.running.delete(e.data.id); job?.done(e.data); this.go(); };
      worker.onerror = () => { if (slot.busy !== null) { const job = this.running.get(slot.busy); this.running.delete(slot.busy); job?.done({ id: slot.busy, error: { message: 'The renderer stopped.', remedy: 'Reload the page.' } }); slot.busy = null; } };
      this.workers.push(slot);
    }
  }
  /** Whose cell it is: those of one frame go to one worker where they can, which then has the frame already. */
  private ownerOf(job: Job): number { return (parseInt(job.key.slice(32, 36), 16) || 0) % this.workers.length; }
  /** For a free worker: what is in view before what is not, its own frames before others. */
  private nextFor(n: number): number { const rank = (j: Job): number => (j.first ? 0 : 2) + (this.ownerOf(j) === n ? 0 : 1); return this.waiting.reduce((best, j, i) => (best < 0 || rank(j) < rank(this.waiting[best]!) ? i : best), -1); }
  private go(): void {
    for (;;) {
      const n = this.workers.findIndex((w) => w.busy === null), at = n < 0 ? -1 : this.nextFor(n);
      if (at < 0) return;
      const slot = this.workers[n]!, job = this.waiting.splice(at, 1)[0]!;
      const id = ++this.next;
      slot.busy = id;
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
  pick(cell: CellSpec, x: number, y: number): Promise<BenchAnswer> { return this.ask(`pick ${Math.random()}`, true, (id) => ({ id, pick: cell, x, y })); }
  end(): void { for (const w of this.workers) w.worker.terminate(); }
}

export function usePool(): Pool | null {
  const [pool, setPool] = useState<Pool | null>(null);
  useEffect(() => { const p = new Pool(); queueMicrotask(() => setPool(p)); return () => p.end(); }, []);
  return pool;
}
