'use client';
/** Which measured values a chart has, how its patches are laid out, and ways to find it. */
import { FileButton } from '../kit/FileButton';
import type { ChartOnBench } from './model/frame';
import { NumberField } from '../kit/NumberField';

interface Props {
  charts: readonly ChartOnBench[];
  chart: ChartOnBench | null;
  may: boolean;
  busy: boolean;
  onChart: (id: string) => void;
  onLayout: (layout: { columns: number; outside: number }) => void;
  onBring: (file: File) => void;
  onFind: () => void;
}

export function ChartBar({ charts, chart, may, busy, onChart, onLayout, onBring, onFind }: Props) {
  return (
    <div className="mb-3 flex flex-wrap items-center gap-2">
      <label className="flex items-center gap-2 text-soft">
        Measured values
        <select
          className="field max-w-[220px] text-ink"
          value={chart?.id ?? ''}
          onChange={(event) => onChart(event.target.value)}
        >
          {!charts.length && <option value="">none yet</option>}
          {charts.map(({ id, name, columns, rows }) => (
            <option key={id} value={id}>
              {name}, {columns} × {rows}
            </option>
          ))}
        </select>
      </label>
      {may && (
        <>
          {chart && <Layout chart={chart} onLayout={onLayout} />}
          <FileButton
            words="Bring in CGATS text"
            label="Measured values as CGATS text"
            accept=".txt,.cgats,.cie,.it8"
            onFile={onBring}
          />
          <button className="button" disabled={!chart || busy} onClick={onFind}>
            {busy ? 'Looking' : 'Find the marks'}
          </button>
        </>
      )}
    </div>
  );
}

function Layout({ chart, onLayout }: { chart: ChartOnBench; onLayout: Props['onLayout'] }) {
  const { columns, outside } = chart;
  return (
    <>
      <label className="flex items-center gap-2 text-soft">
        Patches a row
        <NumberField
          label="Patches a row"
          className="field w-[60px] text-ink"
          min={1}
          max={100}
          step={1}
          whole
          key={chart.id}
          value={columns}
          onValue={(next) => onLayout({ columns: next, outside })}
        />
      </label>
      <label
        className="flex items-center gap-2 text-soft"
        title="How far the corner marks stand outside the field, in widths of a patch"
      >
        Marks outside
        <NumberField
          label="Marks outside"
          className="field w-[66px] text-ink"
          min={0}
          max={3}
          step={0.05}
          key={chart.id}
          value={outside}
          onValue={(next) => onLayout({ columns, outside: next })}
        />
      </label>
    </>
  );
}
