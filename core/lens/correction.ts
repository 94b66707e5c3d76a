/** What a calibration says of one photo: where in it each color of each place lies, and how much light has reached it. */
import { between, type Settings } from './between';
import type { CalibratedLens, Series } from './calibrated';
import { evaluated, modelOf, type Quantity } from './models';
import { radiusOf, reachOf, rises, tabulated, type Radial } from './radial';
import { serves } from './sensor';

export interface PhotoTaken extends Settings {
  /** crop factor of the sensor */ crop: number | null;
}

/** Radii in half diagonals of the photo, from its center. */
export interface Correction {
  /** where in the photo lies what belongs at a radius of the ideal picture */ red: Radial;
  green: Radial;
  blue: Radial;
  /** the part of the light that has reached a radius of the photo */ light: Radial;
}
export type CorrectionFound =
  | {
      is: 'known';
      correction: Correction;
      /** the quantities that are corrected */ done: string[];
      /** those that are not, and why */ left: string[];
    }
  | { is: 'unknown'; why: string };

/** How a database says which way a model leads. */
export const directionNames = { 'to-distorted': 'ideal-to-distorted', 'to-ideal': 'distorted-to-ideal' } as const;
/** The unit of radii, the only one. */
export const UNIT = 'half-diagonal';

/** Past the corner, since a picture that is scaled to fill may ask for a little more. */
const FARTHEST = 1.5;
/** Up to here no place may be shown twice. */
const CORNER = 1.02;

const itself: Radial = (r) => r;
const whole: Radial = () => 1;

type Found = { radial: Radial } | { why: string };

/**
 * @param lens as a database has it
 * @returns what can be corrected of the photo; a quantity that cannot be is left as it is, and told
 */
export function correctionOf(lens: CalibratedLens, taken: PhotoTaken): CorrectionFound {
  const { crop } = taken;
  if (lens.crop === null)
    return { is: 'unknown', why: 'the database does not say how large a sensor it was measured on' };
  if (crop === null) return { is: 'unknown', why: 'the size of the camera’s sensor is not known' };
  if (!serves(lens.crop, crop)) return { is: 'unknown', why: 'it was measured on a smaller sensor than the camera’s' };

  const done: string[] = [];
  const left: string[] = [];
  const scale = lens.crop / crop;
  const found = (quantity: Quantity, channel: string, none: Radial): Radial => {
    const series = lens.series.find((one) => one.quantity === quantity && one.channel === channel);
    if (!series) return none;
    const one = radialOf(series, quantity, taken, scale);
    const words = [quantity, channel && `of ${channel}`].filter(Boolean).join(' ');
    if ('radial' in one) done.push(words);
    else left.push(`${words} (${one.why})`);
    return 'radial' in one ? one.radial : none;
  };
  const bent = found('distortion', '', itself);
  const red = found('lateral chromatic aberration', 'red', itself);
  const blue = found('lateral chromatic aberration', 'blue', itself);
  const light = found('vignetting', '', whole);
  if (!done.length) return { is: 'unknown', why: left[0] ?? 'the database names it without any measurement' };
  const correction = {
    red: tabulated((r) => red(bent(r)), FARTHEST),
    green: tabulated(bent, FARTHEST),
    blue: tabulated((r) => blue(bent(r)), FARTHEST),
    light: tabulated(light, FARTHEST),
  };
  return { is: 'known', correction, done, left };
}

/** A quantity of a photo as a function of its radius, whatever the series calls its direction. */
function radialOf(series: Series, quantity: Quantity, taken: PhotoTaken, scale: number): Found {
  const measured = measuredAt(series, quantity, taken);
  if ('why' in measured) return measured;
  const { radial } = measured;
  const isBack = series.direction === directionNames['to-ideal'];
  if (quantity === 'vignetting') {
    const light: Radial = isBack ? (r) => 1 / radial(r * scale) : (r) => radial(r * scale);
    return isLit(light) ? { radial: light } : { why: 'its figures leave a part of the picture without light' };
  }
  const given: Radial = (r) => radial(r * scale) / scale;
  const folded = { why: 'its figures show one place twice' };
  if (!isBack) return rises(given, CORNER) ? { radial: given } : folded;
  const most = reachOf(given, CORNER, 2 * FARTHEST);
  if (most === null) return folded;
  const end = given(most);
  return { radial: (r) => (r < end ? (radiusOf(given, r, most) ?? most) : most + r - end) };
}

const PLACES = 100;

function isLit(light: Radial): boolean {
  return Array.from({ length: PLACES + 1 }, (_, n) => light((n / PLACES) * CORNER)).every(
    (part) => part > 0 && Number.isFinite(part),
  );
}

/** As the series has it, in radii of the picture that was measured. */
function measuredAt(series: Series, quantity: Quantity, taken: PhotoTaken): Found {
  const model = modelOf(quantity, series.model);
  if (!model) return { why: `its model “${series.model}” is not known here` };
  if (series.unit !== UNIT) return { why: `its unit “${series.unit}” is not known here` };
  if (!Object.values<string>(directionNames).includes(series.direction))
    return { why: `its direction “${series.direction}” is not known here` };
  const found = between(series.samples, taken);
  if (found.is === 'not found') return found;
  const { weighted } = found;
  if (weighted.some(({ sample }) => Object.values(sample.k).some((value) => !Number.isFinite(value))))
    return { why: 'one of its figures is no number' };
  const parts = weighted.map(({ sample, weight }) => ({ at: evaluated(model, sample.k), weight }));
  return { radial: (r) => parts.reduce((sum, { at, weight }) => sum + weight * at(r), 0) };
}
