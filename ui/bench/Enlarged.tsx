'use client';
/** One to four cells large, side by side or under a wipe, with linked zoom and pan, histogram and readout. Holding shows the frame without a look. */
import { X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { labOfSrgb } from '@/core/color/lab';
import type { CellSpec } from '@/browser-workers/bench.worker';
import { Large, type Reader, type View } from './Large';
import type { Pool } from './pool';

interface Shown {
  spec: CellSpec;
  name: string;
}
interface Props {
  pool: Pool | null;
  title: string;
  shown: Shown[];
  /** what may be put beside: column and name */ others: { column: number; name: string }[];
  onAdd: (column: number) => void;
  onDrop: (place: number) => void;
  surround: 0 | 1 | 2;
  onSurround: (s: 0 | 1 | 2) => void;
  onClose: () => void;
}

export const grays = ['#d6d6d6', '#777777', '#1f1f1f'] as const;
const grayWords = ['light', 'middle', 'dark'];

export function Enlarged({ pool, title, shown, others, onAdd, onDrop, surround, onSurround, onClose }: Props) {
  const [view, setView] = useState<View>({ zoom: 0, x: 0.5, y: 0.5 });
  const [wipe, setWipe] = useState(false);
  const [split, setSplit] = useState(50);
  const [original, setOriginal] = useState(false);
  const [readout, setReadout] = useState<{ name: string; rgb: number[] }[] | null>(null);
  const frame = useRef<HTMLDivElement>(null);
  const readers = useRef(new Map<number, Reader>());
  useEffect(() => {
    frame.current?.focus();
  }, []);
  const zoomWords = view.zoom === 0 ? 'whole' : `${view.zoom}:1`;
  const at = (x: number, y: number) =>
    setReadout(shown.map((s, i) => ({ name: s.name, rgb: readers.current.get(i)?.(x, y) ?? [] })));
  const both = wipe && shown.length === 2;
  return (
    <div
      ref={frame}
      role="dialog"
      aria-modal="true"
      aria-label={title}
      tabIndex={-1}
      className="fixed inset-0 z-40 flex flex-col outline-none"
      style={{ background: grays[surround] }}
      onKeyDown={(event) => {
        if (event.key === 'Escape') {
          event.preventDefault();
          onClose();
        } else if (event.key === ' ' && (event.target as HTMLElement).tagName !== 'BUTTON') {
          event.preventDefault();
          setOriginal(true);
        } else if (event.key === '1') setView({ ...view, zoom: 1 });
        else if (event.key === '0') setView({ zoom: 0, x: 0.5, y: 0.5 });
        else if (event.key === 'w' && shown.length === 2) setWipe(!wipe);
        else if (event.key.startsWith('Arrow') && view.zoom && (event.target as HTMLElement).tagName !== 'INPUT') {
          event.preventDefault();
          const d = 0.05;
          setView({
            ...view,
            x: view.x + (event.key === 'ArrowRight' ? d : event.key === 'ArrowLeft' ? -d : 0),
            y: view.y + (event.key === 'ArrowDown' ? d : event.key === 'ArrowUp' ? -d : 0),
          });
        }
      }}
      onKeyUp={(event) => {
        if (event.key === ' ') setOriginal(false);
      }}
    >
      <div className="flex flex-wrap items-center gap-2 border-b border-line bg-sheet px-4 py-2">
        <h2 className="mr-2 text-[17px]">{title}</h2>
        <span className="inline-flex" role="group" aria-label="Zoom">
          {[0, 1, 2].map((z) => (
            <button
              key={z}
              className={`chip ${z === 0 ? '!rounded-r-none' : z === 1 ? '!rounded-none !border-x-0' : '!rounded-l-none'}`}
              aria-pressed={view.zoom === z}
              onClick={() => setView(z ? { ...view, zoom: z } : { zoom: 0, x: 0.5, y: 0.5 })}
            >
              {z ? `${z}:1` : 'whole'}
            </button>
          ))}
        </span>
        {shown.length < 4 && others.length > 0 && (
          <select
            aria-label="Put beside"
            className="field !h-[26px] max-w-[170px] text-[12.5px]"
            value=""
            onChange={(event) => {
              if (event.target.value) {
                setWipe(false);
                onAdd(Number(event.target.value));
              }
            }}
          >
            <option value="">put beside …</option>
            {others.map((o) => (
              <option key={o.column} value={o.column}>
                {o.name}
              </option>
            ))}
          </select>
        )}
        {shown.length > 2 && (
          <button className="chip" onClick={() => onDrop(shown.length - 1)}>
            One less
          </button>
        )}
        {shown.length === 2 && (
          <button className="chip" aria-pressed={wipe} onClick={() => setWipe(!wipe)}>
            Wipe
          </button>
        )}
        {both && (
          <label className="flex items-center gap-2 text-[12px] text-soft">
            edge
            <input
              type="range"
              min={0}
              max={100}
              value={split}
              onChange={(e) => setSplit(Number(e.target.value))}
              aria-label="Edge of the wipe"
              className="accent-[var(--verd)]"
            />
          </label>
        )}
        <button
          className="chip"
          aria-pressed={original}
          onPointerDown={() => setOriginal(true)}
          onPointerUp={() => setOriginal(false)}
          onPointerLeave={() => setOriginal(false)}
          onKeyDown={(event) => {
            if (event.key === ' ' || event.key === 'Enter') setOriginal(true);
          }}
          onKeyUp={() => setOriginal(false)}
        >
          Hold for the original
        </button>
        <span className="inline-flex items-center gap-1 text-[12px] text-soft" role="group" aria-label="Surround">
          {grays.map((g, i) => (
            <button
              key={g}
              aria-label={`${grayWords[i]} surround`}
              aria-pressed={surround === i}
              className={`h-[22px] w-[22px] border ${surround === i ? 'outline outline-2 outline-verd' : 'border-line-strong'}`}
              style={{ background: g }}
              onClick={() => onSurround(i as 0 | 1 | 2)}
            />
          ))}
        </span>
        <p className="min-w-0 flex-1 truncate text-right text-[12px] text-soft" aria-live="off">
          {readout
            ? readout
                .map((r) =>
                  r.rgb.length
                    ? `${r.name}: ${r.rgb.join(' ')}, ${labWords(r.rgb)}${r.rgb.some((v) => v === 255 || v === 0) ? ', clipped' : ''}`
                    : '',
                )
                .filter(Boolean)
                .join('   ')
            : `${zoomWords}. The pointer reads values.`}
        </p>
        <button className="button" onClick={onClose}>
          <X aria-hidden size={14} />
          Close
        </button>
      </div>
      <div
        className={`grid min-h-0 flex-1 gap-2 p-3 ${shown.length > 2 ? 'grid-cols-2 grid-rows-2' : ''}`}
        style={shown.length === 2 && !both ? { gridTemplateColumns: '1fr 1fr' } : undefined}
      >
        {shown.map((shown, i) => (
          <div
            key={i}
            className="relative min-h-0 min-w-0"
            style={
              both
                ? {
                    gridArea: '1 / 1',
                    clipPath: i === 1 ? `inset(0 0 0 ${split}%)` : undefined,
                    pointerEvents: i === 1 ? 'none' : undefined,
                  }
                : undefined
            }
          >
            <Large
              pool={pool}
              slot={i}
              spec={
                original
                  ? {
                      ...shown.spec,
                      stack: [],
                      trim: null,
                      range: null,
                      profile: shown.spec.camera ? 'plain' : shown.spec.profile,
                      stages: null,
                      anchor: null,
                    }
                  : shown.spec
              }
              name={shown.name}
              view={view}
              onView={setView}
              onAt={at}
              onReader={(r) => readers.current.set(i, r)}
              light={surround === 2}
              left={both ? i === 0 : true}
            />
          </div>
        ))}
      </div>
    </div>
  );
}

function labWords([r, g, b]: number[]): string {
  const lab = new Float64Array(3);
  labOfSrgb(r! / 255, g! / 255, b! / 255, lab);
  return `L* ${lab[0]!.toFixed(0)} a* ${lab[1]!.toFixed(0)} b* ${lab[2]!.toFixed(0)}`;
}
