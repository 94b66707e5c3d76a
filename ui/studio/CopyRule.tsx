'use client';
/** How alike two items have to be to count as copies. */
import { useState } from 'react';
import { useAction } from '../kit/action';
import { call } from '../kit/call';
import { Notice } from '../kit/Notice';

export function CopyRule({ p95, max, may }: { p95: number; max: number; may: boolean }) {
  const [most, setMost] = useState(String(p95));
  const [far, setFar] = useState(String(max));
  const { busy, problem, runAndRefresh } = useAction();
  const changed = Number(most) !== p95 || Number(far) !== max;
  const save = () =>
    runAndRefresh(() =>
      call('PATCH /api/studio', {
        body: { ...(most === '' ? {} : { p95: Number(most) }), ...(far === '' ? {} : { max: Number(far) }) },
      }),
    );
  const field = (label: string, value: string, set: (v: string) => void) => (
    <input
      type="number"
      className="field mx-1.5 w-[72px]"
      aria-label={label}
      min={0.05}
      max={10}
      step={0.05}
      value={value}
      disabled={!may}
      onChange={(e) => set(e.target.value)}
    />
  );
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
      noValidate
    >
      <Notice problem={problem} className="mb-2" />
      <p className="flex flex-wrap items-center gap-y-1">
        95 % of colors within{field('ΔE00 within which 95 percent of colors are', most, setMost)}ΔE00, and all within
        {field('ΔE00 within which all colors are', far, setFar)}ΔE00
        {may && changed && (
          <button className="button main ml-3" disabled={busy}>
            Set
          </button>
        )}
      </p>
      <p className="mt-1 text-[12.5px] text-soft">
        For arrivals that are read from now on, and for the groups on Copies.
      </p>
    </form>
  );
}
