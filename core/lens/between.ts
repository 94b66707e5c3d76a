/** What lies between the measurements of a lens: with which weight each of them counts for a photo. */
import type { Sample } from './calibrated';

export interface Settings {
  /** mm */ focal: number | null;
  /** f-number */ aperture: number | null;
  /** m */ distance: number | null;
}
export interface Weighted {
  sample: Sample;
  weight: number;
}

interface Axis {
  name: keyof Settings;
  /** on which measurements are interpolated in a straight line */ scale: (value: number) => number;
  /** whether the outermost measurement stands for what lies past it */ nearest: boolean;
  /** what is taken where the photo does not say it; null: then nothing is */ unsaid: 'largest' | null;
  /** in a photo's words */ label: string;
  words: (value: number) => string;
}

/** A calibration is never extrapolated past its outermost focal lengths. What is not said of the distance is taken for far away. */
const axes: readonly Axis[] = [
  {
    name: 'focal',
    scale: Math.log,
    nearest: false,
    unsaid: null,
    label: 'focal length',
    words: (value) => `${value} mm`,
  },
  { name: 'aperture', scale: Math.log, nearest: true, unsaid: null, label: 'aperture', words: (value) => `f/${value}` },
  {
    name: 'distance',
    scale: (metres) => 1 / metres,
    nearest: true,
    unsaid: 'largest',
    label: 'distance',
    words: (value) => `${value} m`,
  },
];

export type Between = { is: 'found'; weighted: Weighted[] } | { is: 'not found'; why: string };

/** The weights come to 1. */
export function between(samples: readonly Sample[], settings: Settings): Between {
  let cells: Weighted[][] = [samples.map((sample) => ({ sample, weight: 1 }))];
  for (const axis of axes) {
    const next: Weighted[][] = [];
    for (const cell of cells) {
      const split = along(axis, cell, settings[axis.name]);
      if ('why' in split) return { is: 'not found', why: split.why };
      next.push(...split.cells);
    }
    cells = next;
  }
  // what was measured twice at one setting counts once
  const weighted = cells.flatMap((cell) =>
    cell.map(({ sample, weight }) => ({ sample, weight: weight / cell.length })),
  );
  return weighted.length ? { is: 'found', weighted } : { is: 'not found', why: 'nothing was measured' };
}

/** The measurements just below and just above a value, with what each of them counts. */
function along(axis: Axis, cell: Weighted[], wanted: number | null): { cells: Weighted[][] } | { why: string } {
  const said = cell.filter(({ sample }) => sample[axis.name] !== null);
  if (!said.length) return { cells: [cell] };
  const values = [...new Set(said.map(({ sample }) => sample[axis.name] ?? 0))].sort((a, b) => a - b);
  const least = values[0] ?? 0;
  const most = values.at(-1) ?? 0;
  const at = wanted ?? (axis.unsaid === 'largest' || least === most ? most : null);
  if (at === null) return { why: `the photo does not say its ${axis.label}` };
  if (!axis.nearest && (at < least || at > most)) {
    const measured = least === most ? `at ${axis.words(least)}` : `from ${axis.words(least)} to ${axis.words(most)}`;
    return { why: `it was measured ${measured}, and the photo was taken at ${axis.words(at)}` };
  }
  const above = values.find((value) => value >= at) ?? most;
  const below = values.findLast((value) => value <= at) ?? least;
  const share = above === below ? 0 : (axis.scale(at) - axis.scale(below)) / (axis.scale(above) - axis.scale(below));
  const part = (value: number, factor: number): Weighted[] =>
    said
      .filter(({ sample }) => sample[axis.name] === value)
      .map(({ sample, weight }) => ({ sample, weight: weight * factor }));
  return { cells: share === 0 ? [part(below, 1)] : [part(below, 1 - share), part(above, share)] };
}
