'use client';
/** The frame with the grid of its chart over it; the four corners are dragged, or moved by arrows. */
import { useRef, type KeyboardEvent, type PointerEvent, type RefObject } from 'react';
import { fromSquare, project, type Point } from '@/core/chart/homography';
import type { ChartOnBench } from './model/frame';
import type { Size } from './model/view';

interface Props {
  canvas: RefObject<HTMLCanvasElement | null>;
  label: string;
  size: Size;
  chart: ChartOnBench | null;
  corners: Point[];
  may: boolean;
  onCorners: (corners: Point[]) => void;
}

const cornerNames = ['top left', 'top right', 'bottom right', 'bottom left'];
const inside = (value: number): number => Math.min(1, Math.max(0, value));
const arrows: Record<string, Point> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

/** The lines of a grid of patches, as their ends. */
function gridOf(corners: Point[], { columns, rows }: ChartOnBench): [Point, Point][] {
  const plane = fromSquare(corners);
  if (!plane) return [];
  const upright = Array.from({ length: columns + 1 }, (_, i): [Point, Point] => [
    project(plane, i / columns, 0),
    project(plane, i / columns, 1),
  ]);
  const level = Array.from({ length: rows + 1 }, (_, i): [Point, Point] => [
    project(plane, 0, i / rows),
    project(plane, 1, i / rows),
  ]);
  return [...upright, ...level];
}

export function ChartBoard({ canvas, label, size, chart, corners, may, onCorners }: Props) {
  const board = useRef<HTMLDivElement>(null);
  const move = (corner: number, [x, y]: Point) =>
    onCorners(corners.map((point, i) => (i === corner ? [inside(x), inside(y)] : point)));
  const drag = (corner: number) => (event: PointerEvent) => {
    if (!may || !(event.buttons & 1) || !board.current) return;
    const place = board.current.getBoundingClientRect();
    move(corner, [(event.clientX - place.left) / place.width, (event.clientY - place.top) / place.height]);
  };
  const nudge =
    (corner: number, [x, y]: Point) =>
    (event: KeyboardEvent) => {
      const arrow = arrows[event.key];
      if (!may || !arrow) return;
      event.preventDefault();
      const step = event.shiftKey ? 0.01 : 0.001;
      move(corner, [x + arrow[0] * step, y + arrow[1] * step]);
    };
  return (
    <div ref={board} className="relative max-h-full" style={{ aspectRatio: size.width / size.height }}>
      <canvas ref={canvas} role="img" aria-label={label} className="block h-full w-full bg-press" />
      {chart && (
        <>
          <Grid lines={gridOf(corners, chart)} />
          {corners.map(([x, y], i) => (
            <button
              key={cornerNames[i]}
              aria-label={`Corner ${cornerNames[i]}: ${(x * 100).toFixed(1)} by ${(y * 100).toFixed(1)} percent`}
              className="absolute h-[18px] w-[18px] -translate-x-1/2 -translate-y-1/2 cursor-move rounded-full border-2 border-white bg-black/40 outline outline-1 outline-black focus-visible:outline-2 focus-visible:outline-verd"
              style={{ left: `${x * 100}%`, top: `${y * 100}%`, touchAction: 'none' }}
              onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
              onPointerMove={drag(i)}
              onKeyDown={nudge(i, [x, y])}
            />
          ))}
        </>
      )}
    </div>
  );
}

/** Each line twice, so that it is seen on light and on dark. */
const strokes = [
  { stroke: '#000', strokeOpacity: 0.55, strokeWidth: 3 },
  { stroke: '#fff', strokeOpacity: 1, strokeWidth: 1 },
];

function Grid({ lines }: { lines: [Point, Point][] }) {
  return (
    <svg
      aria-hidden
      className="pointer-events-none absolute inset-0 h-full w-full"
      viewBox="0 0 1 1"
      preserveAspectRatio="none"
    >
      {lines.flatMap(([from, to], i) =>
        strokes.map((stroke) => (
          <line
            key={`${i} ${stroke.stroke}`}
            x1={from[0]}
            y1={from[1]}
            x2={to[0]}
            y2={to[1]}
            {...stroke}
            vectorEffect="non-scaling-stroke"
          />
        )),
      )}
    </svg>
  );
}
