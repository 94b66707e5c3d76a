'use client';
/** One cell: the frame under the column's candidate, and what is measured of it. */
import { useEffect, useRef, useState } from 'react';
import type { CellSpec } from '@/browser-workers/bench.worker';
import type { CellFault, Pool, Rendered } from './pool';

interface Props {
  at: string;
  pool: Pool | null;
  spec: CellSpec;
  against: CellSpec | null;
  ratio: number;
  label: string;
  caution: string;
  current: boolean;
  picking: boolean;
  onFocus: () => void;
  onOpen: () => void;
  onPick: (x: number, y: number) => void;
  onWhite?: (w: Rendered['white']) => void;
  bare?: boolean;
}

/** Hues of CIE L*a*b*, every 30° from 0 on: unique yellow lies near 90°, green near 160°, blue near 260°. */
const hueWords = [
  'pink',
  'red',
  'orange',
  'yellow',
  'lime',
  'green',
  'green',
  'cyan',
  'cyan',
  'blue',
  'violet',
  'magenta',
];
export const tintWords = (t: { chroma: number; hue: number } | null): string => {
  if (!t) return 'no neutrals';
  if (t.chroma < 1) return 'neutral';
  return `${hueWords[Math.floor((t.hue + 15) / 30) % 12]} ${t.chroma.toFixed(1)}`;
};

export function Cell({
  at,
  pool,
  spec,
  against,
  ratio,
  label,
  caution,
  current,
  picking,
  onFocus,
  onOpen,
  onPick,
  onWhite,
  bare,
}: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const box = useRef<HTMLButtonElement>(null);
  const seq = useRef(0);
  const white = useRef(onWhite);
  const [got, setGot] = useState<Pick<Rendered, 'figures' | 'difference' | 'chart' | 'outside'> | null>(null);
  const [fault, setFault] = useState<CellFault | null>(null);
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    white.current = onWhite;
  });
  useEffect(() => {
    const eye = new IntersectionObserver((l) => setSeen(l.some((x) => x.isIntersecting)), { rootMargin: '120px' });
    if (box.current) eye.observe(box.current);
    return () => eye.disconnect();
  }, []);
  const key = JSON.stringify([spec, against]);
  useEffect(() => {
    if (!pool) return;
    const n = ++seq.current;
    const began = performance.now();
    void pool
      .ask(at, seen, (id) => ({ id, cell: spec, against }))
      .then((answer) => {
        if (n !== seq.current) return;
        if ('error' in answer) {
          setFault(answer.error);
          setGot(null);
          return;
        }
        if (!('figures' in answer)) return;
        const c = canvas.current;
        if (!c) return;
        if (c.width !== answer.width || c.height !== answer.height) {
          c.width = answer.width;
          c.height = answer.height;
        }
        c.getContext('2d')!.putImageData(
          new ImageData(new Uint8ClampedArray(answer.pixels), answer.width, answer.height),
          0,
          0,
        );
        c.dataset.shown = String(Number(c.dataset.shown ?? 0) + 1);
        c.dataset.repaint = (performance.now() - began).toFixed(1);
        setFault(null);
        setGot({
          figures: answer.figures,
          difference: answer.difference,
          chart: answer.chart,
          outside: answer.outside,
        });
        white.current?.(answer.white);
      });
    // what is asked for is told by its text; whether it is in view only orders the queue
  }, [pool, key]); // eslint-disable-line react-hooks/exhaustive-deps
  const cellFigures = got?.figures;
  return (
    <div className="min-w-0">
      <button
        ref={box}
        data-cell={at}
        aria-label={`${label}${cellFigures ? `. Clipped ${cellFigures.clippedHigh.toFixed(1)} percent, shadows ${cellFigures.shadows} of 32, neutrals ${tintWords(cellFigures.tint)}` : ''}${got?.chart ? `. Patches of the chart: mean ΔE ${got.chart.mean.toFixed(1)}, max ${got.chart.max.toFixed(1)}` : ''}${caution ? `. Caution: ${caution}` : ''}`}
        className={`relative block w-full bg-press ${current ? 'outline outline-2 outline-offset-1 outline-verd' : ''} ${picking ? 'cursor-crosshair' : ''}`}
        style={{ aspectRatio: ratio }}
        onFocus={onFocus}
        onClick={(event) => {
          if (picking) {
            const box = event.currentTarget.getBoundingClientRect();
            onPick((event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height);
          } else onFocus();
        }}
        onDoubleClick={() => {
          if (!picking) onOpen();
        }}
      >
        <canvas ref={canvas} className={`block h-full w-full ${got ? '' : 'invisible'}`} />
        {!got && !fault && (
          <span className="absolute inset-0 grid place-items-center text-[12px] text-soft">Rendering</span>
        )}
        {fault && (
          <span role="alert" className="absolute inset-0 overflow-auto p-2 text-left text-[11.5px] leading-snug">
            <b className="font-semibold">{fault.message}</b> {fault.remedy}
          </span>
        )}
        {caution && !fault && (
          <span className="absolute bottom-1 left-1 bg-paper px-1.5 text-[11px] font-semibold text-ochre">
            {caution}
          </span>
        )}
      </button>
      {!bare && (
        <p
          className="flex justify-between gap-2 overflow-hidden whitespace-nowrap pt-0.5 text-[11.5px] text-soft"
          aria-hidden
        >
          {got?.difference ? (
            <>
              <span>mean {got.difference.mean.toFixed(1)}</span>
              <span>95 % {got.difference.p95.toFixed(1)}</span>
              <span>max {got.difference.max.toFixed(1)}</span>
            </>
          ) : cellFigures ? (
            <>
              <span title="pixels with a channel at full scale">clip {cellFigures.clippedHigh.toFixed(1)} %</span>
              <span title="levels of the darkest 32 that the picture has">dark {cellFigures.shadows}/32</span>
              <span className="truncate" title="mean color of the neutrals">
                {tintWords(cellFigures.tint)}
              </span>
            </>
          ) : (
            <span>&nbsp;</span>
          )}
        </p>
      )}
      {!bare && got && (got.chart || got.outside !== null) && (
        <p className="flex justify-between gap-2 overflow-hidden whitespace-nowrap text-[11.5px] text-soft" aria-hidden>
          {got.chart && (
            <>
              <span title="mean ΔE00 of the chart’s patches">patches {got.chart.mean.toFixed(1)}</span>
              <span title="the largest, and where">
                max {got.chart.max.toFixed(1)} at {got.chart.worst}
              </span>
            </>
          )}
          {got.outside !== null && (
            <span title="pixels outside the display’s gamut">outside {got.outside.toFixed(1)} %</span>
          )}
        </p>
      )}
    </div>
  );
}
