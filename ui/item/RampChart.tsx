'use client';
/** The neutral scale as a look gives it: each channel, with the figures under the pointer. */
import { useState } from 'react';
import { must } from '@/core/must';

/** Input, result by channel. */
export type Ramp = readonly [number, number, number, number][];

/** How the channels are told apart; where several charts are on one page, it is said once. */
export const rampLegend = 'Neutral scale: red whole, green long, blue short dashes';

const width = 300;
const height = 150;
const x = (v: number) => v * width;
const y = (v: number) => height - Math.min(1.05, Math.max(-0.05, v)) * height;

export function RampChart({
  ramp,
  of = '',
}: {
  ramp: Ramp;
  /** whose it is, where several are on one page */ of?: string;
}) {
  const [at, setAt] = useState<number | null>(null);
  const here = at === null ? null : ramp.reduce((a, b) => (Math.abs(b[0] - at) < Math.abs(a[0] - at) ? b : a));
  return (
    <figure>
      <svg
        viewBox={`-26 -8 ${width + 34} ${height + 32}`}
        className="w-full"
        role="img"
        aria-label={`The neutral scale${of && ` of ${of}`}: input across, result by channel up`}
        onPointerMove={(event) => {
          const box = event.currentTarget.getBoundingClientRect();
          setAt(Math.min(1, Math.max(0, (((event.clientX - box.left) / box.width) * (width + 34) - 26) / width)));
        }}
        onPointerLeave={() => setAt(null)}
      >
        {[0, 0.5, 1].map((v) => (
          <g key={v}>
            <path d={`M0 ${y(v)}H${width}M${x(v)} 0V${height}`} stroke="var(--line)" fill="none" />
            <text x={-5} y={y(v) + 4} textAnchor="end" fontSize="10" fill="var(--soft)">
              {v}
            </text>
            <text x={x(v)} y={height + 13} textAnchor="middle" fontSize="10" fill="var(--soft)">
              {v}
            </text>
          </g>
        ))}
        <path d={`M0 ${y(0)}L${width} ${y(1)}`} stroke="var(--line-strong)" strokeDasharray="3 3" fill="none" />
        {(['#b3474f', '#3f7d4f', '#4a63b8'] as const).map((color, k) => (
          <path
            key={color}
            d={`M${ramp.map((p) => `${x(p[0]).toFixed(1)} ${y(must(p[k + 1])).toFixed(1)}`).join('L')}`}
            stroke={color}
            strokeWidth="1.5"
            strokeDasharray={['', '6 2', '2 2'][k]}
            fill="none"
          />
        ))}
        {here && <path d={`M${x(here[0])} 0V${height}`} stroke="var(--ink)" strokeWidth="0.7" />}
      </svg>
      <figcaption className="min-h-[18px] text-[12px] text-soft">
        {here
          ? `in ${here[0].toFixed(3)}: red ${here[1].toFixed(3)}, green ${here[2].toFixed(3)}, blue ${here[3].toFixed(3)}`
          : !of && rampLegend}
      </figcaption>
    </figure>
  );
}
