/** What is costly to make is kept for as long as it is among the most recently used. */
import { LRUCache } from 'lru-cache';

/**
 * Answers with what is kept under a key, or makes it. Two who ask at once share one making; what failed is not kept.
 * @param most how many are kept; the least recently used go first
 */
export function recentlyUsed<T>(most: number): (key: string, make: () => Promise<T>) => Promise<T> {
  const kept = new LRUCache<string, Promise<T>>({ max: most });
  return (key, make) => {
    const held = kept.get(key);
    if (held) return held;
    const made = make();
    made.catch(() => {
      if (kept.peek(key) === made) kept.delete(key);
    });
    kept.set(key, made);
    return made;
  };
}
