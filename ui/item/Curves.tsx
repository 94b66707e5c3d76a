/** Curves drawn over one another: older thin and dashed, newer full; axes with units, and the figures in a table behind. */
import { must } from '@/core/must';
import { line, scaleLinear } from 'd3';

interface Curve {
  name: string;
  older: [number, number][];
  newer: [number, number][];
}
const WIDTH = 250;
const HEIGHT = 210;
const MARGIN = { left: 34, bottom: 30, top: 8, right: 8 };

export function CurveChart({ name, older, newer }: Curve) {
  const values = [...older, ...newer].map((p) => p[1]);
  const x = scaleLinear([0, 1], [MARGIN.left, WIDTH - MARGIN.right]);
  const y = scaleLinear([Math.min(0, ...values), Math.max(1, ...values)], [HEIGHT - MARGIN.bottom, MARGIN.top]);
  const path = line<[number, number]>(
    (p) => x(p[0]),
    (p) => y(p[1]),
  );
  const at = [0, 8, 16, 24, 32, 40, 48, 56, 64].filter((i) => older[i] && newer[i]);
  return (
    <figure className="min-w-0">
      <figcaption className="mb-1 text-[12px] text-soft">{name}: code values, in across, out up</figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="w-full max-w-[340px] bg-paper"
        role="img"
        aria-label={`${name}: the older and the newer version`}
      >
        {x.ticks(4).map((t) => (
          <g key={t}>
            <line x1={x(t)} x2={x(t)} y1={MARGIN.top} y2={HEIGHT - MARGIN.bottom} stroke="var(--line)" />
            <text x={x(t)} y={HEIGHT - MARGIN.bottom + 14} fontSize="10" textAnchor="middle" fill="var(--soft)">
              {t}
            </text>
          </g>
        ))}
        {y.ticks(4).map((t) => (
          <g key={t}>
            <line x1={MARGIN.left} x2={WIDTH - MARGIN.right} y1={y(t)} y2={y(t)} stroke="var(--line)" />
            <text x={MARGIN.left - 5} y={y(t) + 3} fontSize="10" textAnchor="end" fill="var(--soft)">
              {t}
            </text>
          </g>
        ))}
        <path d={path(older) ?? ''} fill="none" stroke="var(--soft)" strokeWidth="1.4" strokeDasharray="4 3" />
        <path d={path(newer) ?? ''} fill="none" stroke="var(--verd)" strokeWidth="1.8" />
      </svg>
      <details className="text-[12px] text-soft">
        <summary className="cursor-pointer">figures</summary>
        <table>
          <thead>
            <tr>
              <th className="pr-3">in</th>
              <th className="pr-3">older</th>
              <th>newer</th>
            </tr>
          </thead>
          <tbody>
            {at.map((i) => (
              <tr key={i}>
                <td className="pr-3">{must(older[i])[0].toFixed(3)}</td>
                <td className="pr-3">{must(older[i])[1].toFixed(3)}</td>
                <td>{must(newer[i])[1].toFixed(3)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </figure>
  );
}
