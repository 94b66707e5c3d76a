'use client';
/** Which approved versions onto which stations; the plan shows every file before anything is written. */
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call, problemOf, type ProblemText } from '../kit/call';
import { Notice } from '../kit/Notice';
import { Selvedge } from '../kit/Selvedge';

interface Props {
  versions: { versionId: string; title: string; kind: string; number: number; selvedge: [string, string][] | null }[];
  stations: { id: string; name: string; note: string }[];
  chosen: string[];
}

export function PlanForm({ versions, stations, chosen }: Props) {
  const router = useRouter();
  const [items, setV] = useState<ReadonlySet<string>>(new Set(chosen));
  const [places, setS] = useState<ReadonlySet<string>>(new Set());
  const [problem, setProblem] = useState<ProblemText | null>(null);
  const [busy, setBusy] = useState(false);
  const flip = (set: ReadonlySet<string>, id: string) => {
    const next = new Set(set);
    if (!next.delete(id)) next.add(id);
    return next;
  };
  const plan = async () => {
    setBusy(true);
    setProblem(null);
    try {
      const { id } = await call('POST /api/rollouts', { body: { versions: [...items], stations: [...places] } });
      router.push(`/rollouts/${id}`);
    } catch (error) {
      setProblem(problemOf(error));
      setBusy(false);
    }
  };
  return (
    <>
      <div className="grid max-w-[1080px] grow grid-cols-2 content-start gap-10">
        <fieldset>
          <legend className="mb-1 font-serif text-[17px] font-medium">What</legend>
          {versions.length ? (
            versions.map((version) => (
              <label key={version.versionId} className="flex items-center gap-3 border-t border-line py-1.5">
                <input
                  type="checkbox"
                  checked={items.has(version.versionId)}
                  onChange={() => setV(flip(items, version.versionId))}
                />
                <Selvedge threads={version.selvedge} className="h-[30px] w-[38px] shrink-0" />
                <span className="font-serif text-[15px] [overflow-wrap:anywhere]">{version.title}</span>
                <span className="ml-auto whitespace-nowrap text-[12px] text-soft">
                  {version.kind}, v{version.number}
                </span>
              </label>
            ))
          ) : (
            <p className="text-soft">Nothing is approved yet. Open an item, confirm its encoding and approve it.</p>
          )}
        </fieldset>
        <fieldset>
          <legend className="mb-1 font-serif text-[17px] font-medium">Where</legend>
          {stations.map((station) => (
            <label key={station.id} className="flex items-center gap-3 border-t border-line py-2">
              <input type="checkbox" checked={places.has(station.id)} onChange={() => setS(flip(places, station.id))} />
              <span>
                <span className="font-serif text-[15px]">{station.name}</span>
                <span className="block text-[12px] text-soft">{station.note}</span>
              </span>
            </label>
          ))}
          {!stations.length && <p className="text-soft">There is no station yet.</p>}
        </fieldset>
      </div>
      <Notice problem={problem} className="mt-4" />
      <div className="sticky bottom-0 -mx-6 mt-6 flex items-center gap-3 border-t border-line bg-sheet px-6 py-3">
        <span className="text-soft">
          {items.size} items onto {places.size} stations
        </span>
        <button
          className="button main ml-auto"
          disabled={busy || !items.size || !places.size}
          onClick={() => void plan()}
        >
          {busy ? 'Planning' : 'Show every file'}
        </button>
      </div>
    </>
  );
}
