'use client';
/** The frame on which the rules are shown, kept in the address. */
import { useRouter } from 'next/navigation';
import { useTransition } from 'react';

interface Props {
  frames: readonly { id: string; name: string }[];
  frame: string;
}

export function FrameChoice({ frames, frame }: Props) {
  const router = useRouter();
  const [waits, begin] = useTransition();
  return (
    <p className="mb-3 flex items-baseline gap-2">
      <select
        className="field"
        aria-label="Frame on which the rules are shown"
        value={frame}
        aria-busy={waits}
        onChange={(event) => {
          const next = event.target.value;
          begin(() => router.replace(`/stations/opening?frame=${next}`, { scroll: false }));
        }}
      >
        {frames.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
      {waits && <span className="text-soft">opening it …</span>}
    </p>
  );
}
