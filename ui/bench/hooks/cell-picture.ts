'use client';
/** Has a cell rendered, paints it, and keeps what was measured. */
import { useEffect, useRef, useState, type RefObject } from 'react';
import type { CellSpec } from '@/core/bench/cell';
import { paint } from '../../kit/canvas';
import type { CellFault, Pool, Rendered } from './pool';

export type Measured = Pick<Rendered, 'figures' | 'difference' | 'chart' | 'outside'>;

export interface Asked {
  pool: Pool | null;
  /** names the cell for the pool */ key: string;
  spec: CellSpec;
  against: CellSpec | null;
  /** in view: it goes before what is not */ first: boolean;
  onWhite?: ((white: Rendered['white']) => void) | undefined;
}

export function useCellPicture(
  canvas: RefObject<HTMLCanvasElement | null>,
  { pool, key, spec, against, first, onWhite }: Asked,
): { measured: Measured | null; fault: CellFault | null } {
  const [measured, setMeasured] = useState<Measured | null>(null);
  const [fault, setFault] = useState<CellFault | null>(null);
  const latest = useRef(0);
  const tellWhite = useRef(onWhite);
  useEffect(() => {
    tellWhite.current = onWhite;
  });
  const text = JSON.stringify([spec, against]);
  useEffect(() => {
    if (!pool) return;
    const number = ++latest.current;
    const began = performance.now();
    void pool
      .ask(key, first, (id) => ({ id, cell: spec, against }))
      .then((answer) => {
        if (number !== latest.current || !canvas.current) return;
        if ('error' in answer) {
          setFault(answer.error);
          setMeasured(null);
          return;
        }
        if (!('figures' in answer)) return;
        paint(canvas.current, answer.width, answer.height, answer.pixels);
        canvas.current.dataset.repaint = (performance.now() - began).toFixed(1);
        setFault(null);
        setMeasured(answer);
        tellWhite.current?.(answer.white);
      });
    // what is asked for is told by its text; whether it is in view only orders the queue
  }, [pool, text]); // eslint-disable-line react-hooks/exhaustive-deps -- the text tells what is asked for
  return { measured, fault };
}
