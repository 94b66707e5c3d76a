'use client';
/** The picture part of an item's page: frame, strength, hold to see the original; all of it in the address. */
import { must } from '@/core/must';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { usePathname } from 'next/navigation';
import { useEffect, useState } from 'react';
import { FramePreview } from '../kit/FramePreview';
import { Strength } from '../kit/Strength';

interface Props {
  title: string;
  versionId: string;
  least: number;
  most: number;
  frames: { id: string; name: string; light: string; file_kind: string }[];
  frame: string;
  strength: number;
  /** of a preset: what it is rendered with, and what is not shown */ preset: ShownPreset | null;
}

/** How a preset is rendered here. */
export interface ShownPreset {
  called: { title: string; strength: number } | null;
  notShown: readonly string[];
  missing: readonly string[];
}

/** What the picture of a preset is, and what is missing from it. */
function PresetWords({ preset: { called, notShown, missing } }: { preset: ShownPreset }) {
  return (
    <p className="mt-1 text-[12px] text-soft">
      By its settings themselves, not by a table{called && `, and ${called.title} at ${called.strength} %`}.
      {notShown.length > 0 && ` Not shown: ${notShown.join(', ').toLowerCase()}.`}
      {missing.length > 0 && (
        <span className="text-ochre"> Without {missing.map((name) => `“${name}”`).join(', ')}, which is not held.</span>
      )}
    </p>
  );
}

export function ItemView({ preset, title, versionId, least, most, frames, ...first }: Props) {
  const path = usePathname();
  const [frame, setFrame] = useState(first.frame);
  const [asked, setStrength] = useState(first.strength);
  const strength = least === most ? most : asked;
  useEffect(() => {
    const query = new URLSearchParams(location.search);
    query.set('frame', frame);
    if (strength === 100) query.delete('strength');
    else query.set('strength', String(strength));
    history.replaceState(null, '', `${path}?${query}`);
  }, [frame, strength, path]);
  const current = frames.find((f) => f.id === frame) ?? frames[0];
  if (!current)
    return (
      <p className="border border-dashed border-line-strong p-8 text-soft">
        There is no reference frame yet, so there is nothing to show the effect on.
      </p>
    );
  const kinds = [...new Set(frames.map((f) => f.file_kind))];
  const ordered = kinds.flatMap((k) => frames.filter((f) => f.file_kind === k));
  const at = ordered.indexOf(current);
  return (
    <div>
      <div className="mb-2.5 flex items-end justify-between gap-6">
        <div className="flex items-end gap-1.5">
          <label className="flex flex-col gap-0.5 text-[12px] text-soft">
            Frame
            <select
              className="field max-w-[320px] text-[13.5px] text-ink"
              value={current.id}
              onChange={(e) => setFrame(e.target.value)}
            >
              {kinds.map((kind) => (
                <optgroup key={kind} label={kind}>
                  {ordered
                    .filter((f) => f.file_kind === kind)
                    .map((frame) => (
                      <option key={frame.id} value={frame.id}>
                        {frame.name}
                      </option>
                    ))}
                </optgroup>
              ))}
            </select>
          </label>
          <button
            className="button !px-2"
            aria-label="The frame before"
            disabled={at === 0}
            onClick={() => setFrame(must(ordered[at - 1]).id)}
          >
            <ChevronLeft size={16} aria-hidden />
          </button>
          <button
            className="button !px-2"
            aria-label="The next frame"
            disabled={at === ordered.length - 1}
            onClick={() => setFrame(must(ordered[at + 1]).id)}
          >
            <ChevronRight size={16} aria-hidden />
          </button>
        </div>
        <div className="w-[170px] shrink-0">
          <Strength value={strength} least={least} most={most} onChange={setStrength} />
        </div>
      </div>
      <FramePreview
        frame={current.id}
        version={versionId}
        strength={strength}
        width={900}
        label={`${title} at ${strength} % on ${current.name}`}
      />
      <p className="mt-1.5 text-[12px] text-soft">
        Etagere’s rendering on {current.name} ({current.light}). Hold the pointer or the space bar on the picture to see
        the original.
      </p>
      {preset && <PresetWords preset={preset} />}
    </div>
  );
}
