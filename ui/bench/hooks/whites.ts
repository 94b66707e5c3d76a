'use client';
/** The white of each row, as its cells come. They are taken up together, since each redraws the whole matrix. */
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Rendered } from './pool';

export type Whites = Readonly<Record<string, Rendered['white']>>;
const TOGETHER_MS = 120;

const holds = (held: Whites, come: Whites): boolean =>
  Object.entries(come).every(([frame, white]) => JSON.stringify(held[frame] ?? null) === JSON.stringify(white));

export function useWhites(): { whites: Whites; tellWhite: (frame: string, white: Rendered['white']) => void } {
  const [whites, setWhites] = useState<Whites>({});
  const come = useRef<Record<string, Rendered['white']>>({});
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const tellWhite = useCallback((frame: string, white: Rendered['white']) => {
    come.current[frame] = white;
    timer.current ??= setTimeout(() => {
      const all = come.current;
      timer.current = null;
      come.current = {};
      setWhites((held) => (holds(held, all) ? held : { ...held, ...all }));
    }, TOGETHER_MS);
  }, []);
  useEffect(
    () => () => {
      if (timer.current) clearTimeout(timer.current);
    },
    [],
  );
  return { whites, tellWhite };
}
