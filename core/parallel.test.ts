import { setTimeout as wait } from 'node:timers/promises';
import { describe, expect, it } from 'vitest';
import { inParallel } from './parallel';

describe('work that is done side by side', () => {
  it('does each once, never more than so many at a time', async () => {
    const done: number[] = [];
    let now = 0;
    let most = 0;
    await inParallel([1, 2, 3, 4, 5, 6, 7], 3, async (n) => {
      most = Math.max(most, ++now);
      await wait(n % 3);
      now--;
      done.push(n);
    });
    expect(done.sort()).toEqual([1, 2, 3, 4, 5, 6, 7]);
    expect(most).toBe(3);
  });

  it('begins nothing more after a fault, and waits for what is under way', async () => {
    const begun: number[] = [];
    const ended: number[] = [];
    const work = inParallel([1, 2, 3, 4], 2, async (n) => {
      begun.push(n);
      if (n === 1) throw new Error('the first');
      await wait(5);
      ended.push(n);
    });
    await expect(work).rejects.toThrow('the first');
    expect(begun).toEqual([1, 2]);
    expect(ended).toEqual([2]);
  });

  it('does nothing where there is nothing', async () => {
    await expect(inParallel([], 4, () => Promise.reject(new Error('never')))).resolves.toBeUndefined();
  });
});
