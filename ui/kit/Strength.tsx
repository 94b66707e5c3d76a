'use client';
/** Strength in percent: a track to the item's own most, and a field for any number up to 400. What takes no strength says so. */
import { must } from '@/core/must';
import { Slider } from 'radix-ui';
import { NumberField } from './NumberField';

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
  if (least === most) return <p className="text-soft">As made: it takes no strength</p>;
  return (
    <div>
      <div className="mb-1 flex items-baseline justify-between">
        <span id="strength-label">Strength</span>
        <span>
          <NumberField
            label="Strength in percent, up to 400"
            className="w-[44px] border-b border-line bg-transparent text-right font-semibold"
            min={0}
            max={400}
            step={1}
            whole
            value={value}
            onValue={onChange}
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
        onValueChange={([value]) => onChange(must(value))}
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
