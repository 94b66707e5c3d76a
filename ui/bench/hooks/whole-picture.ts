'use client';
/** A large cell's picture as a whole: painted, with its histogram, and kept for the pointer to read. */
import { useEffect, useRef, useState, type RefObject } from 'react';
import type { CellSpec } from '@/core/bench/cell';
import { paint } from '../../kit/canvas';
import { paintHistogram } from '../histogram';
import { LARGE_WIDTH } from '../model/cell';
import type { Size } from '../model/view';
import type { CellFault, Pool } from './pool';

interface WholePicture {
  size: Size;
  fault: CellFault | null;
  setFault: (fault: CellFault | null) => void;
  preview: RefObject<ImageData | null>;
  /** counts what was asked for: an answer to an older number is not wanted any more */ asked: RefObject<number>;
}

export function useWholePicture(
  pool: Pool | null,
  slot: number,
  spec: CellSpec,
  canvas: RefObject<HTMLCanvasElement | null>,
  bars: RefObject<HTMLCanvasElement | null>,
): WholePicture {
  const [size, setSize] = useState<Size>({ width: 1, height: 1 });
  const [fault, setFault] = useState<CellFault | null>(null);
  const preview = useRef<ImageData | null>(null);
  const asked = useRef(0);
  const text = JSON.stringify(spec);
  useEffect(() => {
    if (!pool) return;
    const number = ++asked.current;
    void pool
      .ask(`large ${slot}`, true, (id) => ({ id, cell: { ...spec, width: LARGE_WIDTH }, against: null }))
      .then((answer) => {
        if (number !== asked.current || !canvas.current) return;
        if ('error' in answer) {
          setFault(answer.error);
          return;
        }
        if (!('figures' in answer)) return;
        const data = paint(canvas.current, answer.width, answer.height, answer.pixels);
        preview.current = data;
        setSize({ width: answer.width, height: answer.height });
        setFault(null);
        if (bars.current) paintHistogram(bars.current, data.data);
      });
  }, [pool, text]); // eslint-disable-line react-hooks/exhaustive-deps -- the text tells what is asked for
  return { size, fault, setFault, preview, asked };
}
