'use client';
/** Which shelves, and which headings on them, are folded: the browser remembers it. */
import { useEffect, useState } from 'react';

const KEPT = 'etagere-folded';

export interface Folded {
  isFolded: (key: string) => boolean;
  fold: (keys: readonly string[], on: boolean) => void;
}

function readKept(): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEPT) ?? '[]');
    return Array.isArray(kept) ? kept.filter((key): key is string => typeof key === 'string') : [];
  } catch {
    return [];
  }
}

export const headingKey = (shelf: string, headings: readonly string[]): string => [shelf, ...headings].join('\n');

export function useFolded(): Folded {
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  useEffect(() => {
    const kept = readKept();
    if (kept.length) queueMicrotask(() => setFolded(new Set(kept)));
  }, []);
  return {
    isFolded: (key) => folded.has(key),
    fold: (keys, on) => {
      const next = new Set(folded);
      for (const key of keys) {
        if (on) next.add(key);
        else next.delete(key);
      }
      setFolded(next);
      localStorage.setItem(KEPT, JSON.stringify([...next]));
    },
  };
}
