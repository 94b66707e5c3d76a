/** Several readings of one chart as one table, and how far they are from it. */
import type { Figures } from '../conversion/outcome';
import { Problem } from '../problem';
import type { Look } from '../look/look';
import { residual } from '../look/residual';
import { sampler } from '../look/sample';

export interface Average {
  look: Look;
  /** each reading against the average, in ΔE00: the mean over all, and the farthest of any; null for a single one */
  spread: { mean: number; max: number } | null;
}

/**
 * The mean of tables of one size, entry by entry.
 * @throws a Problem where there is none, or they are of different sizes
 */
export function averageOf(readings: readonly Look[], title: string): Average {
  const [first] = readings;
  if (!first || readings.some((one) => one.size !== first.size || one.kind !== first.kind))
    throw new Problem(
      'chart-readings',
      first ? 'These readings are of charts of different sizes.' : 'No reading is chosen.',
      title,
      first ? 'Choose readings of one chart.' : 'Choose at least one reading.',
    );
  const table = new Float32Array(first.table.length);
  for (let i = 0; i < table.length; i++) {
    let sum = 0;
    for (const one of readings) sum += one.table[i]!;
    table[i] = sum / readings.length;
  }
  const look: Look = { ...first, table, title };
  if (readings.length === 1) return { look, spread: null };
  const apart: Figures[] = readings.map((one) => residual(sampler(one), sampler(look)));
  return {
    look,
    spread: {
      mean: apart.reduce((sum, { meanDeltaE }) => sum + meanDeltaE, 0) / apart.length,
      max: Math.max(...apart.map(({ maxDeltaE }) => maxDeltaE)),
    },
  };
}
