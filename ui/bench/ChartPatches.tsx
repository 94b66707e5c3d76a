'use client';
/** What each patch of a chart was rendered as, against what was measured of it; worst first. */
import type { ChartResult, PatchResult } from '@/core/chart/measure';

interface Props {
  /** of the columns that can render it */ names: string[];
  renderedBy: number;
  onRenderedBy: (column: number) => void;
  result: ChartResult | null;
  hasChart: boolean;
}

export function ChartPatches({ names, renderedBy, onRenderedBy, result, hasChart }: Props) {
  return (
    <div className="min-h-0 overflow-auto" tabIndex={0} role="region" aria-label="Patches, worst first">
      <label className="mb-2 flex items-center gap-2 text-soft">
        Rendered by
        <select
          className="field min-w-0 flex-1 text-ink"
          value={renderedBy}
          onChange={(event) => onRenderedBy(Number(event.target.value))}
        >
          {names.map((name, i) => (
            <option key={i} value={i}>
              {name}
            </option>
          ))}
        </select>
      </label>
      {result ? <Result result={result} /> : <p className="text-soft">{hasChart ? howToPlace : howToBegin}</p>}
    </div>
  );
}

const howToPlace =
  'Put the four corners onto the outer corners of the field of patches, the first patch at the top left.';
const howToBegin =
  'A target frame is judged by the measured values of its chart: bring them in as CGATS text, with L*a*b* or XYZ of each patch.';

function Result({ result }: { result: ChartResult }) {
  const worstFirst = [...result.patches].sort((a, b) => b.deltaE - a.deltaE);
  return (
    <>
      <p className="mb-2" data-target-figures>
        ΔE00 of {result.patches.length} patches: mean <b>{result.mean.toFixed(2)}</b>, max{' '}
        <b>{result.max.toFixed(2)}</b> at {result.worst}
      </p>
      <table className="list">
        <thead>
          <tr>
            <th>Patch</th>
            <th>Measured</th>
            <th>Rendered</th>
            <th className="!text-right">ΔE00</th>
          </tr>
        </thead>
        <tbody>
          {worstFirst.map((patch) => (
            <tr key={patch.id}>
              <td>{patch.id}</td>
              <LabCell lab={patch.measured} />
              <LabCell lab={patch.rendered} />
              <td className="text-right font-mono text-[12.5px]">{patch.deltaE.toFixed(1)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

function LabCell({ lab: [l, a, b] }: { lab: PatchResult['measured'] }) {
  return (
    <td>
      <span className="inline-flex items-center gap-1.5 text-[12px]">
        <i
          aria-hidden
          className="inline-block h-[18px] w-[18px] border border-line"
          style={{ background: `lab(${l.toFixed(1)}% ${a.toFixed(1)} ${b.toFixed(1)})` }}
        />
        {[l, a, b].map((value) => value.toFixed(0)).join(' ')}
      </span>
    </td>
  );
}
