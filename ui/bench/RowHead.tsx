'use client';
/** The head of a row: the frame, its camera and light, and by what it is balanced. */
import type { ChoiceOnBench } from '@/core/bench/choice';
import { bodyOf } from '@/core/frame/body';
import type { Rendered } from './pool';
import type { Row } from './state';

export interface FrameOnBench {
  id: string;
  name: string;
  light: string;
  subject: string;
  width: number;
  height: number;
  camera: string;
  serial: string;
  conversion: string;
  lens: string;
  profile: string;
  chart_id: string | null;
  chart_corners: [number, number][] | null;
  file_kind: 'rendered' | 'camera data';
}
interface Props {
  frame: FrameOnBench;
  row: Row;
  white: Rendered['white'];
  picking: boolean;
  set: (wb: string) => void;
  onPick: () => void;
  onRemove: () => void;
  onAnchor: () => void;
  onUp: () => void;
  /** the profile that most frames of this camera came with, where this one came with another */ most: string | null;
  onChart: (() => void) | null;
  /** the house choice for its case */ choice: ChoiceOnBench | null;
  onChoice: (c: ChoiceOnBench) => void;
}

/** With commas; the browser's own formatting takes tens of milliseconds to wake. */
const thousands = (n: number): string => String(Math.round(n)).replace(/\B(?=(\d{3})+$)/g, ',');

export function RowHead({
  frame,
  row,
  white,
  picking,
  set,
  onPick,
  onRemove,
  onAnchor,
  onUp,
  most,
  onChart,
  choice,
  onChoice,
}: Props) {
  const kind = row.wb.startsWith('k:') ? 'k' : row.wb.startsWith('n:') ? 'n' : row.wb;
  const [kelvin, tint] =
    kind === 'k'
      ? row.wb.slice(2).split(',').map(Number)
      : [white ? Math.round(white.kelvin) : 5500, white ? Math.round(white.tint) : 0];
  return (
    <div className="min-w-0 pr-2 text-[12px]" data-row={frame.name}>
      <h3 className="font-sans text-[13.5px] font-semibold leading-tight tracking-normal [overflow-wrap:anywhere]">
        {frame.name}
      </h3>
      <p className="text-soft">
        {[bodyOf(frame), frame.light, frame.file_kind === 'camera data' ? '' : 'rendered'].filter(Boolean).join(', ')}
      </p>
      {frame.profile && !most && <p className="text-soft">came with {frame.profile}</p>}
      {most && (
        <p className="font-semibold leading-snug text-ochre">
          came with {frame.profile}, most with {most}
        </p>
      )}
      {frame.conversion && <p className="text-soft">told by its serial, {frame.serial}</p>}
      {choice && (
        <p className="leading-snug text-soft">
          house choice{choice.client ? ` for ${choice.client}` : ''}:{' '}
          <button className="underline" onClick={() => onChoice(choice)}>
            {[choice.profile, choice.look && `${choice.look} ${choice.strength} %`].filter(Boolean).join(' + ')}
          </button>
        </p>
      )}
      <label className="mt-1 block">
        <span className="sr-only">White balance of {frame.name}</span>
        <select
          className="field !h-[26px] w-full !px-1 text-[12px]"
          value={kind}
          onChange={(event) => {
            const value = event.target.value;
            if (value === 'n') onPick();
            else set(value === 'k' ? `k:${kelvin},${tint}` : value);
          }}
        >
          <option value="as">as in the file</option>
          <option value="auto">gray world</option>
          {frame.file_kind === 'camera data' && <option value="k">temperature</option>}
          <option value="n">{kind === 'n' ? 'picked' : 'pick from a cell'}</option>
        </select>
      </label>
      {kind === 'k' && (
        <p className="mt-1 flex items-center gap-1">
          <input
            type="number"
            className="field !h-[24px] w-[62px] !px-1"
            aria-label={`Temperature of ${frame.name} in kelvin`}
            min={2000}
            max={50000}
            step={50}
            value={kelvin}
            onChange={(event) => {
              const v = Number(event.target.value);
              if (v >= 2000 && v <= 50000) set(`k:${v},${tint}`);
            }}
          />
          K
          <input
            type="number"
            className="field !h-[24px] w-[44px] !px-1"
            aria-label={`Tint of ${frame.name}`}
            min={-150}
            max={150}
            value={tint}
            onChange={(event) => {
              const v = Number(event.target.value);
              if (Math.abs(v) <= 150) set(`k:${kelvin},${v}`);
            }}
          />
        </p>
      )}
      {picking && (
        <p className="mt-1 font-medium text-verd" role="status">
          Click something gray in this row.
        </p>
      )}
      {white && kind !== 'k' && (
        <p className="mt-0.5 text-soft">
          {thousands(white.kelvin)} K, tint {white.tint.toFixed(0)}
        </p>
      )}
      {white && !white.reachable && (
        <p className="mt-1 leading-snug text-madder">
          No temperature reaches this neutral.{' '}
          <button className="underline" onClick={onAnchor}>
            Show anchored at 5,000 K
          </button>
        </p>
      )}
      <p className="mt-0.5 flex gap-2">
        {onChart && (
          <button className="text-soft underline" onClick={onChart} aria-label={`The chart in ${frame.name}`}>
            {frame.chart_id ? 'target' : 'chart'}
          </button>
        )}
        <button className="text-soft underline" onClick={onUp} aria-label={`Move ${frame.name} up`}>
          up
        </button>
        <button className="text-soft underline" onClick={onRemove} aria-label={`Take ${frame.name} off`}>
          take off
        </button>
      </p>
    </div>
  );
}
