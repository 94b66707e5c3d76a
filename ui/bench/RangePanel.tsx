'use client';
/** The ruler of range compression. */
import type { RangeCompression } from '@/core/bench/range';

const LOW = -9;
const HIGH = 5;
const place = (ev: number): number => ((ev - LOW) / (HIGH - LOW)) * 100;
/** Scene range in above, range out below, on one ruler of EV about middle gray. */
export function RangePanel({
  range,
  onRange,
  all,
  onAll,
}: {
  range: RangeCompression;
  onRange: (r: RangeCompression) => void;
  all: boolean;
  onAll: (on: boolean) => void;
}) {
  const handle = (end: 'inLow' | 'inHigh' | 'outLow' | 'outHigh', text: string, low: number, high: number) => (
    <input
      type="range"
      className="absolute inset-x-0 h-4 w-full appearance-none bg-transparent accent-[var(--verd)]"
      style={{ pointerEvents: 'auto' }}
      aria-label={text}
      min={low}
      max={high}
      step={0.25}
      value={range[end]}
      onChange={(e) => onRange({ ...range, [end]: Number(e.target.value) })}
    />
  );
  const band = (a: number, b: number, tone: string) => (
    <span
      aria-hidden
      className="absolute top-[6px] h-[4px]"
      style={{ left: `${place(a)}%`, width: `${place(b) - place(a)}%`, background: tone }}
    />
  );
  const line = (title: string, darkest: 'inLow' | 'outLow', lightest: 'inHigh' | 'outHigh', tone: string) => (
    <div className="grid grid-cols-[84px_1fr_110px] items-center gap-2">
      <span>{title}</span>
      <div className="relative h-4 border-b border-line-strong">
        {band(range[darkest], range[lightest], tone)}
        <div className="absolute inset-y-0" style={{ left: 0, width: `${place(0)}%` }}>
          {handle(darkest, `${title}, darkest, in EV`, LOW, -0.25)}
        </div>
        <div className="absolute inset-y-0" style={{ left: `${place(0)}%`, right: 0 }}>
          {handle(lightest, `${title}, lightest, in EV`, 0.25, HIGH)}
        </div>
      </div>
      <span className="text-right text-soft">
        {range[darkest]} to +{range[lightest]} EV
      </span>
    </div>
  );
  return (
    <section aria-label="Range compression" className="mb-3 border-y border-line bg-sheet px-3 py-2 text-[12.5px]">
      <div className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-5">
        <div className="space-y-1">
          {line('scene range', 'inLow', 'inHigh', 'var(--line-strong)')}
          {line('range out', 'outLow', 'outHigh', 'var(--verd)')}
          <p aria-hidden className="grid grid-cols-[84px_1fr_110px] gap-2 text-[11px] text-soft">
            <span />
            <span className="relative h-4">
              {[-8, -6, -4, -2, 0, 2, 4].map((e) => (
                <i key={e} className="absolute -translate-x-1/2 not-italic" style={{ left: `${place(e)}%` }}>
                  {e > 0 ? `+${e}` : e}
                </i>
              ))}
            </span>
            <span />
          </p>
        </div>
        <div className="flex items-center gap-4">
          <label className="flex items-center gap-1.5">
            edges
            <input
              type="number"
              className="field !h-[26px] w-[58px] !px-1.5"
              min={0.5}
              max={15}
              step={0.5}
              value={range.edge}
              onChange={(event) => {
                const v = Number(event.target.value);
                if (v >= 0.5 && v <= 15) onRange({ ...range, edge: v });
              }}
            />
            %
          </label>
          <label className="flex items-center gap-1.5">
            detail
            <input
              type="number"
              className="field !h-[26px] w-[58px] !px-1.5"
              min={0}
              max={2}
              step={0.1}
              value={range.detail}
              onChange={(event) => {
                const v = Number(event.target.value);
                if (v >= 0 && v <= 2) onRange({ ...range, detail: v });
              }}
            />
          </label>
          <label className="flex items-center gap-1.5">
            <input type="checkbox" checked={all} onChange={(e) => onAll(e.target.checked)} />
            on all columns
          </label>
        </div>
      </div>
    </section>
  );
}
