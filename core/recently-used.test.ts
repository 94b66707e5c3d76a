import { describe, expect, test } from 'vitest';
import { recentlyUsed } from './recently-used';

describe('what was used recently', () => {
  test('is made once, also for two who ask at once', async () => {
    const remember = recentlyUsed<number>(2);
    let made = 0;
    const make = async () => ++made;
    expect(await Promise.all([remember('a', make), remember('a', make)])).toEqual([1, 1]);
    expect(await remember('a', make)).toBe(1);
  });

  test('goes when it is the least recently used of too many', async () => {
    const remember = recentlyUsed<string>(2);
    const made: string[] = [];
    const ask = (key: string) =>
      remember(key, async () => {
        made.push(key);
        return key;
      });
    for (const key of ['a', 'b', 'a', 'c', 'a', 'b']) await ask(key);
    expect(made).toEqual(['a', 'b', 'c', 'b']);
  });

  test('is not kept when its making failed', async () => {
    const remember = recentlyUsed<number>(2);
    await expect(remember('a', () => Promise.reject(new Error('no')))).rejects.toThrow('no');
    expect(await remember('a', async () => 7)).toBe(7);
  });
});
