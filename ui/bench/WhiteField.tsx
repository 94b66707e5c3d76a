'use client';
/** By what a row is balanced: as in the file, by the gray world, by a temperature, or by something gray in the picture. */
import type { WhiteBalance } from '@/core/bench/white-balance';
import { NumberField } from '../kit/NumberField';
import type { Rendered } from './hooks/pool';
import type { FrameOnBench } from './model/frame';

interface Props {
  frame: FrameOnBench;
  white: WhiteBalance;
  seen: Rendered['white'];
  onWhite: (white: WhiteBalance) => void;
  onPick: () => void;
}

const usualWhite = { kelvin: 5500, tint: 0 };

/** What a temperature begins with: that of the row as it is now. */
function temperatureOf(white: WhiteBalance, seen: Rendered['white']): { kelvin: number; tint: number } {
  if (white.by === 'temperature') return white;
  return seen ? { kelvin: Math.round(seen.kelvin), tint: Math.round(seen.tint) } : usualWhite;
}

export function WhiteField({ frame, white, seen, onWhite, onPick }: Props) {
  const temperature = temperatureOf(white, seen);
  const choose = (by: string) => {
    if (by === 'neutral') onPick();
    else if (by === 'temperature') onWhite({ by, ...temperature });
    else onWhite(by === 'gray world' ? { by } : { by: 'file' });
  };
  return (
    <>
      <label className="mt-1 block">
        <span className="sr-only">White balance of {frame.name}</span>
        <select
          className="field !h-[26px] w-full !px-1 text-[12px]"
          value={white.by}
          onChange={(event) => choose(event.target.value)}
        >
          <option value="file">as in the file</option>
          <option value="gray world">gray world</option>
          {frame.file_kind === 'camera data' && <option value="temperature">temperature</option>}
          <option value="neutral">{white.by === 'neutral' ? 'picked' : 'pick from a cell'}</option>
        </select>
      </label>
      {white.by === 'temperature' && <Temperature frame={frame} white={white} onWhite={onWhite} />}
    </>
  );
}

interface TemperatureProps {
  frame: FrameOnBench;
  white: Extract<WhiteBalance, { by: 'temperature' }>;
  onWhite: (white: WhiteBalance) => void;
}

function Temperature({ frame, white, onWhite }: TemperatureProps) {
  return (
    <p className="mt-1 flex items-center gap-1">
      <NumberField
        className="field !h-[24px] w-[62px] !px-1"
        label={`Temperature of ${frame.name} in kelvin`}
        min={2000}
        max={50000}
        step={50}
        value={white.kelvin}
        onValue={(kelvin) => onWhite({ ...white, kelvin })}
      />
      K
      <NumberField
        className="field !h-[24px] w-[44px] !px-1"
        label={`Tint of ${frame.name}`}
        min={-150}
        max={150}
        step={1}
        value={white.tint}
        onValue={(tint) => onWhite({ ...white, tint })}
      />
    </p>
  );
}
