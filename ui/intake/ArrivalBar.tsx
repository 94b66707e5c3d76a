'use client';
/** Search within an arrival, and the frame on which its looks are shown. */
import { useRouter } from 'next/navigation';
import { useRef } from 'react';

interface Props {
  id: string;
  words: string;
  /** the one group that is shown whole */ only: string | null;
  frame: string;
  frames: { id: string; name: string }[];
}

const PAUSE_MS = 200;

export function ArrivalBar({ id, words, only, frame, frames }: Props) {
  const router = useRouter();
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const show = (change: Record<string, string>) => {
    const wanted = { words, frame: frames[0]?.id === frame ? '' : frame, group: only ?? '', ...change };
    const query = new URLSearchParams(Object.entries(wanted).filter(([, value]) => value));
    router.replace(`/intake/${id}${query.size ? `?${query}` : ''}`, { scroll: false });
  };
  return (
    <div className="mb-4 flex flex-wrap items-center gap-4">
      <input
        type="search"
        aria-label="Find files in this arrival"
        placeholder="Find files by path or title"
        className="field w-[280px]"
        defaultValue={words}
        onChange={(event) => {
          if (timer.current) clearTimeout(timer.current);
          const typed = event.target.value.trim();
          timer.current = setTimeout(() => show({ words: typed }), PAUSE_MS);
        }}
      />
      {frames.length > 0 && (
        <label className="text-soft">
          Shown on{' '}
          <select
            className="field ml-1 h-[28px] max-w-[220px] text-ink"
            value={frame}
            onChange={(event) => show({ frame: event.target.value })}
          >
            {frames.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
        </label>
      )}
    </div>
  );
}
