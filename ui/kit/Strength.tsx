'use client';
/** Strength in percent: a track to the item's own most, and a field for any number up to 400. What takes no strength says so. */
import { must } from '@/core/must';
import { Slider } from 'radix-ui';
import { useState } from 'react';

export function Strength({
  value,
  least,
  most,
  onChange,
}: {
  value: number;
  least: number;
  most: number;
  onChange(v: number): void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  if (least === most) return <p className="text-soft">As made: it takes no strength</p>;
  return (
    <div>
      <div className="mb-1 flex items-baseline justify-between">
        <span id="strength-label">Strength</span>
        <span>
          <input
            aria-label="Strength in percent, up to 400"
            inputMode="numeric"
            className="w-[44px] border-b border-line bg-transparent text-right font-semibold"
            value={typed ?? String(value)}
            onChange={(event) => {
              setTyped(event.target.value);
              const strength = Number(event.target.value);
              if (event.target.value.trim() !== '' && Number.isFinite(strength) && strength >= 0 && strength <= 400)
                onChange(Math.round(strength));
            }}
            onBlur={() => setTyped(null)}
          />{' '}
          %
        </span>
      </div>
      <Slider.Root
        aria-labelledby="strength-label"
        className="relative flex h-5 touch-none items-center"
        min={0}
        max={most}
        step={1}
        value={[Math.min(value, most)]}
        onValueChange={([value]) => {
          setTyped(null);
          onChange(must(value));
        }}
      >
        <Slider.Track className="relative h-[4px] grow bg-line-strong">
          <Slider.Range className="absolute h-full bg-verd" />
          <span
            aria-hidden
            className="absolute top-[-4px] h-3 w-px bg-ink"
            style={{ left: `${(100 / most) * 100}%` }}
            title="as made"
          />
        </Slider.Track>
        <Slider.Thumb aria-label="Strength" className="block h-[17px] w-[9px] border border-verd bg-paper" />
      </Slider.Root>
    </div>
  );
}
