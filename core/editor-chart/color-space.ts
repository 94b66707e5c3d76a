/** Whether a picture says that it is in the color space of the chart. */
import { once } from '../icc/transform';
import { chartProblem } from './find';

/** Colors that tell spaces and curves apart. */
const PROBES = [1, 0, 0, 0, 1, 0, 0, 0, 1, 0.5, 0.5, 0.5, 0.2, 0.2, 0.2, 0.8, 0.4, 0.2];
/** Profiles of one space differ by rounding alone: so much in XYZ, where white is 1. */
const SAME = 0.006;

/** Refuses a profile that means other colors by the same numbers than sRGB does. */
export async function checkColorSpace(icc: Uint8Array): Promise<void> {
  const [own, srgb] = await Promise.all([once(icc, 'xyz', PROBES), once('srgb', 'xyz', PROBES)]);
  const off = own.reduce((most, value, at) => Math.max(most, Math.abs(value - srgb[at]!)), 0);
  if (off <= SAME) return;
  throw chartProblem(
    'chart-color-space',
    'The chart was exported in another color space than the one it was made in.',
    'the embedded profile',
    'Choose sRGB as the color space of the export, without any conversion, and export again.',
  );
}
