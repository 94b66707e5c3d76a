'use client';
/** Two workers that render cells: what is in view first, and of a cell only what was asked for last. */
import { useEffect, useState } from 'react';
import type { BenchAnswer, BenchRequest, CellAnswer } from '@/browser-workers/bench/protocol';
import type { CellSpec } from '@/core/bench/cell';

export type Rendered = CellAnswer;
export interface CellFault {
  message: string;
  remedy: string;
}
interface Job {
  key: string;
  first: boolean;
  request: (id: number) => BenchRequest;
  done: (answer: BenchAnswer) => void;
}

/** Jobs that a worker has at once: while one waits for the server, another is computed. */
const DEPTH = 3;

/** As much of a worker as the pool needs; a test has one of its own. */
export type Renderer = Pick<Worker, 'postMessage' | 'terminate' | 'onmessage' | 'onerror'>;

interface Slot {
  worker: Renderer;
  busy: Set<number>;
}

const startRenderer = (): Renderer =>
  new Worker(new URL('../../../browser-workers/bench.worker.ts', import.meta.url), { type: 'module', name: 'bench' });

export class Pool {
  private readonly slots: Slot[] = [];
  private readonly waiting: Job[] = [];
  private readonly running = new Map<number, Job>();
  private next = 0;

  constructor(count = 2, start: () => Renderer = startRenderer) {
    for (let i = 0; i < count; i++) this.slots.push(this.open(start()));
  }

  private open(worker: Renderer): Slot {
    const slot: Slot = { worker, busy: new Set() };
    worker.onmessage = (event: MessageEvent<BenchAnswer>) => {
      this.settle(slot, event.data.id, event.data);
      this.handOut();
    };
    worker.onerror = () => {
      const error = { message: 'The renderer stopped.', remedy: 'Reload the page.' };
      for (const id of [...slot.busy]) this.settle(slot, id, { id, error });
    };
    return slot;
  }

  private settle(slot: Slot, id: number, answer: BenchAnswer): void {
    slot.busy.delete(id);
    const job = this.running.get(id);
    this.running.delete(id);
    job?.done(answer);
  }

  /** Whose cell it is: those of one frame go to one worker where they can, which then has the frame already. */
  private ownerOf(job: Job): number {
    return (parseInt(job.key.slice(32, 36), 16) || 0) % this.slots.length;
  }

  /** For a free worker: what is in view before what is not, its own frames before others; -1 when nothing waits. */
  private nextFor(worker: number): number {
    const rank = (job: Job): number => (job.first ? 0 : 2) + (this.ownerOf(job) === worker ? 0 : 1);
    let best = -1;
    let bestRank = Infinity;
    this.waiting.forEach((job, i) => {
      if (rank(job) < bestRank) {
        best = i;
        bestRank = rank(job);
      }
    });
    return best;
  }

  private handOut(): void {
    for (;;) {
      const least = Math.min(...this.slots.map((slot) => slot.busy.size));
      const free = least < DEPTH ? this.slots.findIndex((slot) => slot.busy.size === least) : -1;
      const slot = this.slots[free];
      const [job] = slot ? this.waiting.splice(this.nextFor(free), this.waiting.length ? 1 : 0) : [];
      if (!slot || !job) return;
      const id = ++this.next;
      slot.busy.add(id);
      this.running.set(id, job);
      slot.worker.postMessage(job.request(id));
    }
  }

  /** `key` names the cell: a newer request replaces one that still waits. */
  ask(key: string, first: boolean, request: (id: number) => BenchRequest): Promise<BenchAnswer> {
    return new Promise((done) => {
      const at = this.waiting.findIndex((job) => job.key === key);
      if (at >= 0) this.waiting.splice(at, 1);
      this.waiting.push({ key, first, request, done });
      this.handOut();
    });
  }

  /** What still waits under such keys is not wanted any more. */
  drop(unwanted: (key: string) => boolean): void {
    const kept = this.waiting.filter((job) => !unwanted(job.key));
    this.waiting.splice(0, this.waiting.length, ...kept);
  }

  pick(cell: CellSpec, x: number, y: number): Promise<BenchAnswer> {
    return this.ask(`pick ${Math.random()}`, true, (id) => ({ id, pick: cell, x, y }));
  }

  end(): void {
    for (const slot of this.slots) slot.worker.terminate();
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
