'use client';
import { counted } from '../kit/words';
import { useBench } from './bench-context';

const FEW = 6;

/** What stands there before anything is laid on the bench: what it is for, and a way to begin. */
export function EmptyBench() {
  const { sets, frames, run } = useBench();
  const layOnly = (list: readonly string[]) => run({ do: 'lay only these frames', frames: list });
  const rendered = frames.filter((frame) => frame.file_kind === 'rendered').slice(0, FEW);
  return (
    <div className="py-12">
      <p className="mb-1 font-serif text-[20px]">Nothing lies on the bench</p>
      <p className="mb-4 max-w-[56ch] text-soft">
        Lay frames on it as rows and looks, presets or camera profiles as columns, and see at once whether a candidate
        holds for the whole set.
      </p>
      <p className="flex flex-wrap gap-2">
        {sets.map((set) => (
          <button key={set.id} className="button" onClick={() => layOnly(set.frames)}>
            {set.name}, {counted(set.frames.length, 'frame')}
          </button>
        ))}
        {frames.length > 0 && (
          <button className="button" onClick={() => layOnly(rendered.map((frame) => frame.id))}>
            The rendered frames
          </button>
        )}
      </p>
    </div>
  );
}
