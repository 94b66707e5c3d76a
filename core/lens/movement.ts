/** By how much two calibrations of one lens differ in a picture. */
import { must } from '../must';
import type { CalibratedLens, Sample } from './calibrated';
import { correctionOf, type Correction } from './correction';

export interface Movement {
  /** how far a place of a color is moved at most, in half diagonals */ most: number;
  /** of the light at one place, in EV */ light: number;
}

const PLACES = 100;
/** So many focal lengths, apertures and distances are compared at most: the outermost, and others evenly between them. */
const MOST = { focal: 5, aperture: 3, distance: 2 } as const;
const radii = Array.from({ length: PLACES + 1 }, (_, n) => n / PLACES);

/** At most so many of them, from the least to the greatest. */
function thinned(values: number[], most: number): number[] {
  const sorted = values.sort((a, b) => a - b);
  if (sorted.length <= most) return sorted;
  return Array.from({ length: most }, (_, n) => must(sorted[Math.round((n * (sorted.length - 1)) / (most - 1))]));
}

/** The settings that either was measured at: between them, both change steadily. */
function settingsOf(lenses: readonly CalibratedLens[]): Pick<Sample, 'focal' | 'aperture' | 'distance'>[] {
  const samples = lenses.flatMap(({ series }) => series.flatMap((one) => one.samples));
  const values = (name: 'focal' | 'aperture' | 'distance'): (number | null)[] => {
    const said = [...new Set(samples.map((sample) => sample[name]).filter((value) => value !== null))];
    return said.length ? thinned(said, MOST[name]) : [null];
  };
  return values('focal').flatMap((focal) =>
    values('aperture').flatMap((aperture) => values('distance').map((distance) => ({ focal, aperture, distance }))),
  );
}

const between = (one: Correction, other: Correction): Movement => ({
  most: Math.max(
    ...(['red', 'green', 'blue'] as const).flatMap((color) =>
      radii.map((r) => Math.abs(one[color](r) - other[color](r))),
    ),
  ),
  light: Math.max(...radii.map((r) => Math.abs(Math.log2(one.light(r) / other.light(r))))),
});

/**
 * On the largest sensor that both serve, over settings that either was measured at: where these are many, a few of them.
 * @returns null where there is none at which both say something
 */
export function movement(one: CalibratedLens, other: CalibratedLens): Movement | null {
  const crop = Math.max(one.crop ?? 0, other.crop ?? 0) || null;
  const all = settingsOf([one, other]).flatMap((settings) => {
    const [a, b] = [correctionOf(one, { ...settings, crop }), correctionOf(other, { ...settings, crop })];
    // what one of them does not say there is no difference of what they say
    const comparable = a.is === 'known' && b.is === 'known' && !a.left.length && !b.left.length;
    return comparable ? between(a.correction, b.correction) : [];
  });
  if (!all.length) return null;
  return { most: Math.max(...all.map(({ most }) => most)), light: Math.max(...all.map(({ light }) => light)) };
}
