'use client';
/** A chart in a frame: rendered with its patches measured, and found by its marks. */
import { useEffect, useRef, useState, type RefObject } from 'react';
import type { CellSpec } from '@/core/bench/cell';
import type { Point } from '@/core/chart/homography';
import type { ChartResult } from '@/core/chart/measure';
import { CallError } from '../../kit/call';
import { paint } from '../../kit/canvas';
import type { ChartOnBench } from '../model/frame';
import type { Size } from '../model/view';
import type { Pool } from './pool';

const WIDTH = 900;
/** While a corner is dragged, only what holds for so long is measured. */
const SETTLED_MS = 40;

interface Asked {
  pool: Pool | null;
  frame: string;
  spec: CellSpec | undefined;
  chart: ChartOnBench | null;
  corners: Point[];
  onError: (error: unknown) => void;
}

export function useChartMeasured(canvas: RefObject<HTMLCanvasElement | null>, asked: Asked) {
  const { pool, frame, spec, chart, corners, onError } = asked;
  const [result, setResult] = useState<ChartResult | null>(null);
  const [size, setSize] = useState<Size>({ width: 3, height: 2 });
  const latest = useRef(0);
  const placed = chart && { corners, columns: chart.columns, rows: chart.rows, patches: chart.patches };
  const text = JSON.stringify([spec, placed && { ...placed, patches: chart.id }]);
  useEffect(() => {
    if (!pool || !spec) return;
    const number = ++latest.current;
    const measure = async () => {
      const cell = { ...spec, width: WIDTH, chart: placed, mark: null };
      const answer = await pool.ask('target', true, (id) => ({ id, cell, against: null }));
      if (number !== latest.current || !canvas.current) return;
      if ('error' in answer) onError(new CallError({ code: 'target', where: frame, ...answer.error }));
      if (!('figures' in answer)) return;
      paint(canvas.current, answer.width, answer.height, answer.pixels);
      setSize({ width: answer.width, height: answer.height });
      setResult(answer.chart);
    };
    const timer = setTimeout(() => void measure(), SETTLED_MS);
    return () => clearTimeout(timer);
  }, [pool, text]); // eslint-disable-line react-hooks/exhaustive-deps -- the text tells what is asked for
  return { result, size };
}

/** The corners of the field of patches, by the four marks around it; throws what a person can be told. */
export async function findCorners(pool: Pool, frame: string, spec: CellSpec, chart: ChartOnBench): Promise<Point[]> {
  const { columns, rows, patches, outside } = chart;
  const answer = await pool.ask('find', true, (id) => ({
    id,
    find: { ...spec, width: WIDTH, mark: null },
    layout: { columns, rows, patches, outside },
  }));
  if ('corners' in answer && answer.corners) return answer.corners;
  throw new CallError({
    code: 'target',
    message: 'No four corner marks were found that fit this chart.',
    where: frame,
    remedy: 'Draw the four corners onto the field of patches by hand.',
  });
}
