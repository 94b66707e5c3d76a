'use client';
/** One cell: the frame under the column's candidate, and what is measured of it. */
import { useEffect, useRef, useState, type MouseEvent } from 'react';
import type { CellSpec } from '@/core/bench/cell';
import { useCrosshair } from './hooks/crosshair';
import { useCellPicture, type Measured } from './hooks/cell-picture';
import type { CellFault, Pool, Rendered } from './hooks/pool';
import { tintWords } from './model/tint';

interface Props {
  at: string;
  pool: Pool | null;
  spec: CellSpec;
  against: CellSpec | null;
  ratio: number;
  label: string;
  caution: string;
  /** what the picture is rendered by, and what it does not show */ said: string;
  current: boolean;
  picking: boolean;
  onFocus: () => void;
  onOpen: () => void;
  onPick: (x: number, y: number) => void;
  onCancelPick: () => void;
  onWhite: ((white: Rendered['white']) => void) | undefined;
}

export function Cell(props: Props) {
  const { at, pool, spec, against, caution, current, picking } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const box = useRef<HTMLButtonElement>(null);
  const [inView, setInView] = useState(false);
  useEffect(() => {
    const watch = new IntersectionObserver((entries) => setInView(entries.some((entry) => entry.isIntersecting)), {
      rootMargin: '120px',
    });
    if (box.current) watch.observe(box.current);
    return () => watch.disconnect();
  }, []);
  const crosshair = useCrosshair(picking, props.onPick, props.onCancelPick);
  const { measured, fault } = useCellPicture(canvas, {
    pool,
    key: at,
    spec,
    against,
    first: inView,
    onWhite: props.onWhite,
  });
  const onClick = (event: MouseEvent<HTMLElement>) => {
    if (!picking) {
      props.onFocus();
      return;
    }
    const place = event.currentTarget.getBoundingClientRect();
    props.onPick((event.clientX - place.left) / place.width, (event.clientY - place.top) / place.height);
  };
  return (
    <div className="min-w-0">
      <button
        ref={box}
        data-cell={at}
        aria-label={spoken(props, measured)}
        className={`relative block w-full bg-press ${current ? 'outline outline-2 outline-offset-1 outline-verd' : ''} ${picking ? 'cursor-crosshair' : ''}`}
        style={{ aspectRatio: props.ratio }}
        onFocus={props.onFocus}
        onKeyDown={crosshair.onKeyDown}
        onClick={onClick}
        onDoubleClick={() => {
          if (!picking) props.onOpen();
        }}
      >
        <canvas ref={canvas} className={`block h-full w-full ${measured ? '' : 'invisible'}`} />
        {picking && current && (
          <span
            aria-hidden
            data-crosshair
            className="absolute h-4 w-4 -translate-x-1/2 -translate-y-1/2 rounded-full border-2 border-white outline outline-1 outline-black"
            style={{ left: `${crosshair.place.x * 100}%`, top: `${crosshair.place.y * 100}%` }}
          />
        )}
        <OverPicture waiting={!measured && !fault} fault={fault} caution={caution} />
      </button>
      <Figures measured={measured} />
      {props.said && (
        <p className="truncate text-[11.5px] text-soft" title={props.said} aria-hidden>
          {props.said}
        </p>
      )}
      {measured && <MoreFigures measured={measured} />}
    </div>
  );
}

/** The cell for readers of screens. */
function spoken({ label, said, caution }: Props, measured: Measured | null): string {
  const parts = [said ? `${label}, ${said}` : label];
  if (measured) {
    const { clippedHigh, shadows, tint } = measured.figures;
    parts.push(`Clipped ${clippedHigh.toFixed(1)} percent, shadows ${shadows} of 32, neutrals ${tintWords(tint)}`);
  }
  if (measured?.chart) {
    const { mean, max } = measured.chart;
    parts.push(`Patches of the chart: mean ΔE ${mean.toFixed(1)}, max ${max.toFixed(1)}`);
  }
  if (caution) parts.push(`Caution: ${caution}`);
  return parts.join('. ');
}

interface OverProps {
  waiting: boolean;
  fault: CellFault | null;
  caution: string;
}

function OverPicture({ waiting, fault, caution }: OverProps) {
  if (waiting) return <span className="absolute inset-0 grid place-items-center text-[12px] text-soft">Rendering</span>;
  if (fault)
    return (
      <span role="alert" className="absolute inset-0 overflow-auto p-2 text-left text-[11.5px] leading-snug">
        <b className="font-semibold">{fault.message}</b> {fault.remedy}
      </span>
    );
  if (!caution) return null;
  return (
    <span className="absolute bottom-1 left-1 bg-paper px-1.5 text-[11px] font-semibold text-ochre">{caution}</span>
  );
}

const line = 'flex justify-between gap-2 overflow-hidden whitespace-nowrap text-[11.5px] text-soft';

function Figures({ measured }: { measured: Measured | null }) {
  return (
    <p className={`${line} pt-0.5`} aria-hidden>
      {measured ? <MeasuredFigures measured={measured} /> : <span>&nbsp;</span>}
    </p>
  );
}

function MeasuredFigures({ measured: { difference, figures } }: { measured: Measured }) {
  if (difference)
    return (
      <>
        <span>mean {difference.mean.toFixed(1)}</span>
        <span>95 % {difference.p95.toFixed(1)}</span>
        <span>max {difference.max.toFixed(1)}</span>
      </>
    );
  return (
    <>
      <span title="pixels with a channel at full scale">clip {figures.clippedHigh.toFixed(1)} %</span>
      <span title="levels of the darkest 32 that the picture has">dark {figures.shadows}/32</span>
      <span className="truncate" title="mean color of the neutrals">
        {tintWords(figures.tint)}
      </span>
    </>
  );
}

function MoreFigures({ measured: { chart, outside } }: { measured: Measured }) {
  if (!chart && outside === null) return null;
  return (
    <p className={line} aria-hidden>
      {chart && (
        <>
          <span title="mean ΔE00 of the chart’s patches">patches {chart.mean.toFixed(1)}</span>
          <span title="the largest, and where">
            max {chart.max.toFixed(1)} at {chart.worst}
          </span>
        </>
      )}
      {outside !== null && <span title="pixels outside the display’s gamut">outside {outside.toFixed(1)} %</span>}
    </p>
  );
}
