/** Twelve threads: the left of each a fixed color, the right what the item makes of it. Two backgrounds, one element. */
import type { CSSProperties } from 'react';
import { fixedThreads } from './fixed-threads';

type Threads = readonly (readonly [fixed: string, made: string])[];

export function Selvedge({ threads, className = '' }: { threads: Threads | null; className?: string }) {
  if (!threads) return <span aria-hidden className={`block bg-press ${className}`} />;
  return <span aria-hidden className={`selvedge ${className}`} style={backgrounds(threads)} />;
}

/** The colors that nearly all have on their left stand in the style sheet, since a page shows hundreds of threads. */
function backgrounds(threads: Threads): CSSProperties {
  const made = bands(threads.map((thread) => thread[1]));
  const fixed = threads.map((thread) => thread[0]);
  if (fixed.join() === fixedThreads.join()) return { '--made': made } as CSSProperties;
  return { '--made': made, '--fixed': bands(fixed) } as CSSProperties;
}

/** Colors below one another with hard edges: each begins where the one before ends, which CSS reads from a 0. */
export const bands = (colors: readonly string[]): string =>
  `linear-gradient(${colors.map((color, i) => `${color} 0 ${percent((i + 1) / colors.length)}`).join()})`;

const percent = (share: number): string => `${Math.round(share * 10_000) / 100}%`;
