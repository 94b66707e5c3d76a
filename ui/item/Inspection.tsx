'use client';
/** A look's health: the verdict with its reasons, the neutral scale as it comes out, hues by sector; the figures as a table behind. */
import { must } from '@/core/must';
import { useState } from 'react';
import { State } from '../kit/State';

export interface InspectionView {
  verdict: 'good' | 'caution' | 'poor';
  findings: { code: string; severity: string; figure: number; unit: string; message: string }[];
  figures: Record<string, unknown>;
  ramp: [number, number, number, number][];
}

const words: Record<string, string> = {
  banding: 'Bands',
  'crushed-shadows': 'Crushed shadows',
  'clipped-highlights': 'Clipped highlights',
  'clipped-shadows': 'Clipped shadows',
  'non-monotone-neutral': 'Neutrals fall',
  'neutral-tint': 'Tinted neutrals',
  fold: 'Folds',
  'out-of-range': 'Out of range',
  'hue-swing': 'Hues swing',
};
const figureWords: [string, string, string][] = [
  ['banding', 'bands', 'code values of 8 bits'],
  ['shadowLevels', 'levels of the darkest 32', ''],
  ['clippedHighlights', 'clipped highlights', '% of the neutral scale'],
  ['clippedShadows', 'clipped shadows', '% of the neutral scale'],
  ['largestFall', 'largest fall of the neutrals', 'L*'],
  ['neutralTint', 'largest tint of the neutrals', 'C*'],
  ['folds', 'folds', '% of cells'],
  ['outOfRange', 'out of range', '% of entries'],
  ['hueSwing', 'largest turn of a hue', '°'],
  ['skinTurn', 'turn of skin colors', '°'],
  ['roughness', 'roughness', 'code values of 8 bits'],
];
const digits = (value: unknown): string => {
  if (typeof value !== 'number') return 'none';
  if (Number.isInteger(value)) return String(value);
  return value.toFixed(Math.abs(value) < 1 ? 2 : 1);
};

const verdictStates: Record<string, string> = { good: 'approved', caution: 'draft', poor: 'failed' };

export function Inspection({ i: inspection }: { i: InspectionView }) {
  const [at, setAt] = useState<number | null>(null);
  const width = 300;
  const height = 150;
  const x = (v: number) => v * width;
  const y = (v: number) => height - Math.min(1.05, Math.max(-0.05, v)) * height;
  const here =
    at === null ? null : inspection.ramp.reduce((a, b) => (Math.abs(b[0] - at) < Math.abs(a[0] - at) ? b : a));
  return (
    <div className="grid grid-cols-[330px_minmax(0,1fr)] gap-6 max-[900px]:grid-cols-[minmax(0,1fr)]">
      <figure>
        <svg
          viewBox={`-26 -8 ${width + 34} ${height + 32}`}
          className="w-full"
          role="img"
          aria-label="The neutral scale: input across, result by channel up"
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
              d={`M${inspection.ramp.map((p) => `${x(p[0]).toFixed(1)} ${y(must(p[k + 1])).toFixed(1)}`).join('L')}`}
              stroke={color}
              strokeWidth="1.5"
              strokeDasharray={['', '6 2', '2 2'][k]}
              fill="none"
            />
          ))}
          {here && <path d={`M${x(here[0])} 0V${height}`} stroke="var(--ink)" strokeWidth="0.7" />}
        </svg>
        <figcaption className="text-[12px] text-soft">
          {here
            ? `in ${here[0].toFixed(3)}: red ${here[1].toFixed(3)}, green ${here[2].toFixed(3)}, blue ${here[3].toFixed(3)}`
            : 'Neutral scale: red whole, green long, blue short dashes'}
        </figcaption>
      </figure>
      <div>
        <p className="mb-1">
          <State of={verdictStates[inspection.verdict] ?? 'unknown'} word={inspection.verdict} />
          {inspection.findings.length === 0 && (
            <span className="ml-2 text-soft">nothing was found that harms pictures</span>
          )}
        </p>
        <ul>
          {inspection.findings.map((finding) => (
            <li key={finding.code} className="border-t border-line py-1.5">
              <b className="font-medium">{words[finding.code] ?? finding.code}</b>, {digits(finding.figure)}{' '}
              {finding.unit}
              {finding.severity === 'poor' && <span className="text-madder"> poor</span>}
              <span className="block text-[12px] text-soft">{finding.message}</span>
            </li>
          ))}
        </ul>
        <details className="mt-1 border-t border-line pt-1.5">
          <summary className="cursor-pointer text-soft">All figures</summary>
          <table className="list">
            <tbody>
              {figureWords.map(([key, text, url]) => (
                <tr key={key}>
                  <td className="!py-1">{text}</td>
                  <td className="!py-1 text-right">{digits(inspection.figures[key])}</td>
                  <td className="!py-1 text-soft">{url}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </details>
      </div>
    </div>
  );
}
