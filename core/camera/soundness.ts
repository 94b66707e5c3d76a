/**
 * Whether a camera profile can render: a file that can be read may still have a matrix that makes nothing of its colors.
 * Limits are far beyond what any profile of a real camera has (Digital Negative specification 1.7, chapter 6).
 */
import type { Matrix } from '../color/matrix';
import { transform } from '../color/matrix';
import { Problem } from '../problem';
import type { HsvTable, Profile } from './dcp';

const MOST_ENTRY = 50;
/** A matrix whose volume is so small beside its entries leaves colors that cannot be told apart. */
const LEAST_VOLUME = 1e-6;
const MOST_STOPS = 20;
const MOST_FACTOR = 100;
/** White of the profile connection space, D50. */
const WHITE = [0.9642, 1, 0.8249];

const refused = (code: string, message: string, where: string): Problem =>
  new Problem(code, message, where, 'Ask the supplier for the profile again.');

const determinant = ([a, b, c, d, e, f, g, h, i]: readonly number[]): number =>
  a! * (e! * i! - f! * h!) - b! * (d! * i! - f! * g!) + c! * (d! * h! - e! * g!);

function checkMatrix(matrix: Matrix, name: string): void {
  const size = Math.max(...matrix.map(Math.abs));
  if (size === 0) throw refused('dcp-matrix', `${name} is all zero.`, name);
  if (size > MOST_ENTRY)
    throw refused('dcp-matrix', `${name} has an entry of ${size.toPrecision(3)}, which no camera has.`, name);
  if (Math.abs(determinant(matrix)) < LEAST_VOLUME * size ** 3)
    throw refused('dcp-matrix', `${name} is singular: different colors become the same.`, name);
}

/** A color matrix takes white to something that every channel of the camera sees. */
function checkColorMatrix(matrix: Matrix, name: string): void {
  checkMatrix(matrix, name);
  const seen = transform(matrix, WHITE);
  if (seen.some((value) => !(value > 0)))
    throw refused('dcp-matrix', `By ${name}, a channel of the camera sees nothing, or less, of white.`, name);
}

function checkForwardMatrix(matrix: Matrix, name: string): void {
  checkMatrix(matrix, name);
  const white = transform(matrix, [1, 1, 1]);
  if (white.some((value, c) => Math.abs(value - WHITE[c]!) > 0.25))
    throw refused('dcp-matrix', `By ${name}, what is neutral for the camera is far from white.`, name);
}

function checkTable({ data }: HsvTable, name: string): void {
  let brightest = 0;
  for (let i = 0; i < data.length; i += 3) {
    const [hue, saturation, value] = [data[i]!, data[i + 1]!, data[i + 2]!];
    if (Math.abs(hue) > 360 || saturation < 0 || saturation > MOST_FACTOR || value < 0 || value > MOST_FACTOR)
      throw refused(
        'dcp-table',
        `Entry ${i / 3 + 1} of ${name} turns by ${hue}° and multiplies by ${saturation} and ${value}, which is no rendering.`,
        name,
      );
    brightest = Math.max(brightest, value);
  }
  if (brightest === 0) throw refused('dcp-table', `${name} makes everything black.`, name);
}

function checkCurve(curve: readonly [number, number][]): void {
  const outputs = curve.map(([, y]) => y);
  const [least, most] = [Math.min(...outputs), Math.max(...outputs)];
  if (least < -1 || most > MOST_FACTOR)
    throw refused('dcp-curve', `The tone curve goes from ${least} to ${most}.`, 'ProfileToneCurve');
  if (most - least < 0.01)
    throw refused('dcp-curve', 'The tone curve is flat: every brightness becomes the same.', 'ProfileToneCurve');
}

/** Throws a Problem for a profile that no picture can be rendered with. */
export function checkProfile(profile: Profile): void {
  profile.color.forEach((matrix, n) => checkColorMatrix(matrix, `ColorMatrix${n + 1}`));
  profile.forward?.forEach((matrix, n) => checkForwardMatrix(matrix, `ForwardMatrix${n + 1}`));
  profile.maps.forEach((map, n) => checkTable(map, `ProfileHueSatMapData${n + 1}`));
  if (profile.look) checkTable(profile.look, 'ProfileLookTableData');
  if (profile.curve) checkCurve(profile.curve);
  if (Math.abs(profile.exposure) > MOST_STOPS)
    throw refused('dcp-exposure', `The exposure offset is ${profile.exposure} EV.`, 'BaselineExposureOffset');
}

/** What a person should know of a profile that can be used all the same; empty where there is nothing. */
export function cautionOfProfile({ camera, name }: { camera: string; name: string }): string {
  if (!camera && !name)
    return 'It has neither a name nor a camera; editors may offer it for every camera, or for none.';
  if (!camera) return 'It names no camera; editors may offer it for every camera, or for none.';
  return name ? '' : 'It has no name; editors list it under the name of its file.';
}
