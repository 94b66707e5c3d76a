'use client';
/** A column's trim: slope, offset and power of each channel, after the ASC CDL. */
import { noTrim, type Trim } from '@/core/bench/measure';
import { NumberField } from '../kit/NumberField';

const channel = ['red', 'green', 'blue'];
const kinds = [
  ['slope', 0, 4, 0.01],
  ['offset', -1, 1, 0.005],
  ['power', 0.1, 4, 0.01],
] as const;

export function TrimPanel({
  name,
  trim,
  linked,
  onLinked,
  onTrim,
  onClose,
}: {
  name: string;
  trim: Trim;
  linked: boolean;
  onLinked: (l: boolean) => void;
  onTrim: (t: Trim) => void;
  onClose: () => void;
}) {
  const set = (part: 'slope' | 'offset' | 'power', c: number, v: number) => {
    const next = [...trim[part]] as [number, number, number];
    if (linked) {
      const change = v - (next[c] ?? 0);
      next.forEach((x, i) => {
        next[i] = Number((x + change).toFixed(4));
      });
    } else next[c] = v;
    onTrim({ ...trim, [part]: next });
  };
  return (
    <section
      aria-label={`Trim of ${name}`}
      className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2 border-y border-line bg-sheet px-3 py-2"
    >
      <b className="font-serif text-[15px] font-medium">Trim of {name}</b>
      {kinds.map(([kind, low, high, step]) => (
        <span key={kind} className="flex items-center gap-1.5" role="group" aria-label={kind}>
          {kind}
          {channel.map((character, i) => (
            <NumberField
              key={character}
              className="field !h-[26px] w-[66px] !px-1.5"
              label={`${kind} of ${character}`}
              min={low}
              max={high}
              step={step}
              value={trim[kind][i] ?? 0}
              onValue={(value) => set(kind, i, value)}
            />
          ))}
        </span>
      ))}
      <label className="flex items-center gap-1.5">
        <input type="checkbox" checked={linked} onChange={(e) => onLinked(e.target.checked)} />
        channels linked
      </label>
      <button className="button quiet" onClick={() => onTrim(noTrim)}>
        As it was
      </button>
      <button className="button quiet ml-auto" onClick={onClose}>
        Close
      </button>
    </section>
  );
}
