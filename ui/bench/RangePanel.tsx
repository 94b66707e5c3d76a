'use client';
/** The ruler of range compression. */
import type { RangeCompression } from '@/core/bench/range';
import { NumberField } from '../kit/NumberField';

/** The ruler's ends, in EV about middle gray. */
const LOW = -9;
const HIGH = 5;
const MARKS = [-8, -6, -4, -2, 0, 2, 4];
/** In percent of the ruler. */
const place = (ev: number): number => ((ev - LOW) / (HIGH - LOW)) * 100;

interface Part {
  range: RangeCompression;
  onRange: (range: RangeCompression) => void;
}
interface Props extends Part {
  /** whether it holds for every column */ all: boolean;
  onAll: (on: boolean) => void;
}

/** Scene range in above, range out below, on one ruler of EV about middle gray. */
export function RangePanel({ range, onRange, all, onAll }: Props) {
  return (
    <section aria-label="Range compression" className="mb-3 border-y border-line bg-sheet px-3 py-2 text-[12.5px]">
      <div className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-5">
        <div className="space-y-1">
          <Line
            title="scene range"
            darkest="inLow"
            lightest="inHigh"
            tone="var(--line-strong)"
            range={range}
            onRange={onRange}
          />
          <Line
            title="range out"
            darkest="outLow"
            lightest="outHigh"
            tone="var(--verd)"
            range={range}
            onRange={onRange}
          />
          <Ruler />
        </div>
        <div className="flex items-center gap-4">
          <Figure field="edge" words="edges" unit="%" min={0.5} max={15} step={0.5} range={range} onRange={onRange} />
          <Figure field="detail" words="detail" min={0} max={2} step={0.1} range={range} onRange={onRange} />
          <label className="flex items-center gap-1.5">
            <input type="checkbox" checked={all} onChange={(event) => onAll(event.target.checked)} />
            on all columns
          </label>
        </div>
      </div>
    </section>
  );
}

interface LineProps extends Part {
  title: string;
  darkest: 'inLow' | 'outLow';
  lightest: 'inHigh' | 'outHigh';
  /** the band's color */ tone: string;
}

function Line({ title, darkest, lightest, tone, range, onRange }: LineProps) {
  const from = place(range[darkest]);
  const to = place(range[lightest]);
  return (
    <div className="grid grid-cols-[84px_1fr_110px] items-center gap-2">
      <span>{title}</span>
      <div className="relative h-4 border-b border-line-strong">
        <span
          aria-hidden
          className="absolute top-[6px] h-[4px]"
          style={{ left: `${from}%`, width: `${to - from}%`, background: tone }}
        />
        <div className="absolute inset-y-0" style={{ left: 0, width: `${place(0)}%` }}>
          <End
            label={`${title}, darkest, in EV`}
            min={LOW}
            max={-0.25}
            value={range[darkest]}
            onValue={(value) => onRange({ ...range, [darkest]: value })}
          />
        </div>
        <div className="absolute inset-y-0" style={{ left: `${place(0)}%`, right: 0 }}>
          <End
            label={`${title}, lightest, in EV`}
            min={0.25}
            max={HIGH}
            value={range[lightest]}
            onValue={(value) => onRange({ ...range, [lightest]: value })}
          />
        </div>
      </div>
      <span className="text-right text-soft">
        {range[darkest]} to +{range[lightest]} EV
      </span>
    </div>
  );
}

interface EndProps {
  label: string;
  min: number;
  max: number;
  value: number;
  onValue: (value: number) => void;
}

/** A handle at one end of a band. */
function End({ label, min, max, value, onValue }: EndProps) {
  return (
    <input
      type="range"
      className="absolute inset-x-0 h-4 w-full appearance-none bg-transparent accent-[var(--verd)]"
      style={{ pointerEvents: 'auto' }}
      aria-label={label}
      min={min}
      max={max}
      step={0.25}
      value={value}
      onChange={(event) => onValue(Number(event.target.value))}
    />
  );
}

function Ruler() {
  return (
    <p aria-hidden className="grid grid-cols-[84px_1fr_110px] gap-2 text-[11px] text-soft">
      <span />
      <span className="relative h-4">
        {MARKS.map((ev) => (
          <i key={ev} className="absolute -translate-x-1/2 not-italic" style={{ left: `${place(ev)}%` }}>
            {ev > 0 ? `+${ev}` : ev}
          </i>
        ))}
      </span>
      <span />
    </p>
  );
}

interface FigureProps extends Part {
  field: 'edge' | 'detail';
  words: string;
  unit?: string;
  min: number;
  max: number;
  step: number;
}

function Figure({ field, words, unit, min, max, step, range, onRange }: FigureProps) {
  return (
    <label className="flex items-center gap-1.5">
      {words}
      <NumberField
        label={words}
        className="field !h-[26px] w-[58px] !px-1.5"
        min={min}
        max={max}
        step={step}
        value={range[field]}
        onValue={(value) => onRange({ ...range, [field]: value })}
      />
      {unit}
    </label>
  );
}
