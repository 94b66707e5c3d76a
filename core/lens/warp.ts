/** Photos brought to how they would be, had their lens been ideal. */
import type { LinearPicture } from '../frame/linear-picture';
import type { Correction } from './correction';
import { radiusOf, type Radial } from './radial';

const RADII = 200;
const FARTHEST = 1.5;
const TOP = 65535;

/** The widest of the three colors: what has to be filled. */
const widest =
  ({ red, green, blue }: Correction): Radial =>
  (r) =>
    Math.max(red(r), green(r), blue(r));

/**
 * By how much the ideal picture is made larger or smaller, so that all of what is shown was photographed and as much as can be is.
 * @returns a factor on radii of what is shown: below 1, the photo's edges are cut off
 */
export function zoomToFill(correction: Correction, width: number, height: number): number {
  const lies = widest(correction);
  const nearest = Math.min(width, height) / Math.hypot(width, height);
  let zoom = Infinity;
  for (let n = 0; n <= RADII; n++) {
    const edge = nearest + ((1 - nearest) * n) / RADII;
    zoom = Math.min(zoom, (radiusOf(lies, edge, FARTHEST) ?? FARTHEST) / edge);
  }
  return zoom;
}

/** How far what is shown has been moved at most, in half diagonals. */
export function farthestMove({ green }: Correction, zoom: number): number {
  let most = 0;
  for (let n = 0; n <= RADII; n++) most = Math.max(most, Math.abs(green((n / RADII) * zoom) - n / RADII));
  return most;
}

/** The photo without what its lens did to it, of the same size, filled to its edges. */
export function unbent(photo: LinearPicture, correction: Correction): LinearPicture {
  const { width, height } = photo;
  const zoom = zoomToFill(correction, width, height);
  const half = Math.hypot(width, height) / 2;
  const [middleX, middleY] = [(width - 1) / 2, (height - 1) / 2];
  const channels = [correction.red, correction.green, correction.blue];
  const data = new Uint16Array(photo.data.length);
  for (let y = 0, at = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const radius = (zoom * Math.hypot(x - middleX, y - middleY)) / half;
      for (let channel = 0; channel < 3; channel++, at++) {
        const lies = channels[channel] ?? correction.green;
        const there = lies(radius);
        const factor = radius > 0 ? (there / radius) * zoom : 1;
        const value = sampled(photo, middleX + (x - middleX) * factor, middleY + (y - middleY) * factor, channel);
        data[at] = Math.max(0, Math.min(TOP, Math.round(value / correction.light(there))));
      }
    }
  return { data, width, height };
}

/**
 * Between pixels, by cubic convolution with a = −1/2: R. G. Keys, "Cubic convolution interpolation for digital image
 * processing", 1981. Edges go on as they end.
 */
function sampled({ data, width, height }: LinearPicture, x: number, y: number, channel: number): number {
  const left = Math.floor(x);
  const above = Math.floor(y);
  const across = weights(x - left);
  const down = weights(y - above);
  let sum = 0;
  for (let row = 0; row < 4; row++) {
    const start = Math.max(0, Math.min(height - 1, above + row - 1)) * width;
    let line = 0;
    for (let column = 0; column < 4; column++) {
      const pixel = start + Math.max(0, Math.min(width - 1, left + column - 1));
      line += across[column]! * data[pixel * 3 + channel]!;
    }
    sum += down[row]! * line;
  }
  return sum;
}

const weights = (t: number): readonly [number, number, number, number] => [
  t * (-0.5 + t * (1 - 0.5 * t)),
  1 + t * t * (1.5 * t - 2.5),
  t * (0.5 + t * (2 - 1.5 * t)),
  t * t * (0.5 * t - 0.5),
];
