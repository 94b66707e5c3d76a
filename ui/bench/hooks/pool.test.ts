import { describe, expect, test, vi } from 'vitest';
import type { BenchAnswer, BenchRequest } from '@/browser-workers/bench/protocol';
import { must } from '@/core/must';
import { Pool, type Renderer } from './pool';

/** A renderer that answers when the test says so. */
class Stub implements Renderer {
  onmessage: Renderer['onmessage'] = null;
  onerror: Renderer['onerror'] = null;
  readonly asked: BenchRequest[] = [];
  terminate = vi.fn();
  postMessage(request: BenchRequest): void {
    this.asked.push(request);
  }
  answer(place = 0): void {
    const request = must(this.asked[place]);
    const data: BenchAnswer = { id: request.id, neutral: [1, 1, 1] };
    this.onmessage?.call(this as unknown as Worker, { data } as MessageEvent);
  }
}

/** Frames whose identifiers end in the worker that owns them. */
const frame = (owner: number, n = 0) => `0198c0de-0000-7000-8000-${String(n).padStart(8, '0')}000${owner}`;
const request = (id: number): BenchRequest => ({ id }) as unknown as BenchRequest;

function pool(count: number): { pool: Pool; workers: Stub[] } {
  const workers: Stub[] = [];
  return {
    workers,
    pool: new Pool(count, () => {
      const worker = new Stub();
      workers.push(worker);
      return worker;
    }),
  };
}
/** Fills a worker up, so that what comes next waits. */
function fill(of: Pool, count: number): void {
  for (let i = 0; i < count; i++) void of.ask(`filling ${i}`, true, request);
}

describe('the renderers of the bench', () => {
  test('share the work evenly, three at a time each', () => {
    const { pool: two, workers } = pool(2);
    for (let i = 0; i < 8; i++) void two.ask(`${i}`, true, request);
    expect(workers.map((worker) => worker.asked.length)).toEqual([3, 3]);
  });

  test('take what is in view before what is not', () => {
    const { pool: one, workers } = pool(1);
    const worker = must(workers[0]);
    fill(one, 3);
    const order: string[] = [];
    void one.ask('hidden', false, (id) => (order.push('hidden'), request(id)));
    void one.ask('in view', true, (id) => (order.push('in view'), request(id)));
    worker.answer(0);
    worker.answer(1);
    expect(order).toEqual(['in view', 'hidden']);
  });

  test('take cells of a frame that they have already before those of others', () => {
    const { pool: two, workers } = pool(2);
    fill(two, 6);
    const order: string[] = [];
    for (const owner of [0, 1])
      void two.ask(`${frame(owner)}/0`, true, (id) => (order.push(`frame ${owner}`), request(id)));
    must(workers[1]).answer(0);
    expect(order).toEqual(['frame 1']);
  });

  test('render a cell that is asked for twice only as it was asked for last', () => {
    const { pool: one, workers } = pool(1);
    fill(one, 3);
    const made: string[] = [];
    void one.ask('cell', true, (id) => (made.push('first'), request(id)));
    void one.ask('cell', true, (id) => (made.push('last'), request(id)));
    for (let i = 0; i < 3; i++) must(workers[0]).answer(i);
    expect(made).toEqual(['last']);
  });

  test('leave what is not wanted any more', () => {
    const { pool: one, workers } = pool(1);
    fill(one, 3);
    void one.ask('part 0 512,0', true, request);
    one.drop((key) => key.startsWith('part 0 '));
    must(workers[0]).answer(0);
    expect(must(workers[0]).asked).toHaveLength(3);
  });

  test('say so to everyone who waits when one of them stops', async () => {
    const { pool: one, workers } = pool(1);
    const waiting = [one.ask('a', true, request), one.ask('b', true, request)];
    const worker = must(workers[0]);
    worker.onerror?.call(worker as unknown as Worker, {} as ErrorEvent);
    for (const answer of await Promise.all(waiting))
      expect(answer).toMatchObject({ error: { remedy: 'Reload the page.' } });
  });

  test('end with the page', () => {
    const { pool: two, workers } = pool(2);
    two.end();
    for (const worker of workers) expect(worker.terminate).toHaveBeenCalledOnce();
  });
});
