'use client';
/** A sample as the mapping reads it, on a frame: it follows every change. */
import { useState } from 'react';
import { split } from '@/core/preset/bake';
import { settingTitle } from '@/core/preset/settings';
import type { CheckedSample } from '@/core/preset/workshop/check';
import { FramePreview } from '../kit/FramePreview';

export interface FrameToShow {
  id: string;
  name: string;
  ratio: number;
}
interface Props {
  checked: readonly CheckedSample[];
  frames: readonly FrameToShow[];
}

export function LivePicture({ checked, frames }: Props) {
  const [sampleName, setSample] = useState('');
  const [frameId, setFrame] = useState('');
  const sample = checked.find(({ name }) => name === sampleName) ?? checked[0];
  const frame = frames.find(({ id }) => id === frameId) ?? frames[0];
  if (!sample || !frame) return null;
  const { kept, left } = split(sample.read?.settings ?? {}, sample.read?.classes ?? {});
  return (
    <aside aria-label="How a sample looks" className="sticky top-[68px] self-start">
      <FramePreview
        frame={frame.id}
        ratio={frame.ratio}
        version={null}
        settings={kept}
        strength={100}
        width={320}
        label={`${frame.name} with ${sample.name}, as the mapping reads it`}
      />
      <label className="mt-2 flex items-center gap-2 text-[12px] text-soft">
        Sample
        <select
          className="field min-w-0 flex-1"
          value={sample.name}
          onChange={(event) => setSample(event.target.value)}
        >
          {checked.map(({ name }) => (
            <option key={name}>{name}</option>
          ))}
        </select>
      </label>
      <label className="mt-1 flex items-center gap-2 text-[12px] text-soft">
        Frame
        <select className="field min-w-0 flex-1" value={frame.id} onChange={(event) => setFrame(event.target.value)}>
          {frames.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      {left.length > 0 && (
        <p className="mt-1 text-[12px] text-soft">
          not shown: {left.map(({ setting }) => settingTitle(setting)).join(', ')}
        </p>
      )}
    </aside>
  );
}
