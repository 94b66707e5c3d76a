'use client';
/** The picture part of an item's page: frame, strength, hold to see the original; all of it in the address. */
import { usePathname } from 'next/navigation';
import { useEffect, useState } from 'react';
import { FramePreview } from '../kit/FramePreview';
import { Strength } from '../kit/Strength';

interface Props { title: string; versionId: string; most: number; frames: { id: string; name: string; light: string }[]; frame: string; strength: number }

export function ItemView({ title, versionId, most, frames, frame: firstFrame, strength: firstStrength }: Props) {
  const path = usePathname(), [frame, setFrame] = useState(firstFrame), [strength, setStrength] = useState(firstStrength);
  useEffect(() => { const q = new URLSearchParams(location.search); q.set('frame', frame); if (strength === 100) q.delete('strength'); else q.set('strength', String(strength)); history.replaceState(null, '', `${path}?${q}`); }, [frame, strength, path]);
  const current = frames.find((f) => f.id === frame) ?? frames[0];
  if (!current) return <p className="border border-dashed border-line-strong p-8 text-soft">There is no reference frame yet, so there is nothing to show the effect on.</p>;
  return (
    <div>
      <div className="mb-2.5 flex items-end justify-between gap-6">
        <div role="radiogroup" aria-label="Frame" className="flex flex-wrap gap-x-3 gap-y-1">
          {frames.map((f) => <button key={f.id} role="radio" aria-checked={f.id === current.id} onClick={() => setFrame(f.id)} className={`border-b-2 pb-0.5 ${f.id === current.id ? 'border-verd font-medium' : 'border-transparent text-soft hover:text-ink'}`}>{f.name}</button>)}
        </div>
        <div className="w-[170px] shrink-0"><Strength value={strength} most={most} onChange={setStrength} /></div>
      </div>
      <FramePreview frame={current.id} version={versionId} strength={strength} width={900} label={`${title} at ${strength} % on ${current.name}`} />
      <p className="mt-1.5 text-[12px] text-soft">Etagere’s rendering on {current.name} ({current.light}). Hold the pointer or the space bar on the picture to see the original.</p>
    </div>
  );
}
