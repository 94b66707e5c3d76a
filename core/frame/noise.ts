/**
 * Noise taken out of a photo, plainly: of its color alone, or of its light too. Editors do it each in their own way; this
 * shows what the choice is about. Square roots of light are worked on, where the noise of light is alike everywhere.
 */
import type { LinearPicture } from './linear-picture';

export type NoiseTaken = 'color' | 'color and luminance';

interface Plane {
  values: Float32Array;
  width: number;
  height: number;
}

const TOP = 65535;
const COLOR_RADIUS = 5;
const LIGHT_RADIUS = 2;
/** Detail that is no stronger than so many times the noise is taken for noise. */
const STRENGTH = 2;

/** @param neutral the camera values of a gray, the largest 1: by it the channels are brought to one scale */
export function withoutNoise(
  { data, width, height }: LinearPicture,
  neutral: readonly number[],
  taken: NoiseTaken,
): LinearPicture {
  const roots = [0, 1, 2].map((channel) =>
    Float32Array.from({ length: width * height }, (_, i) =>
      Math.sqrt((data[i * 3 + channel] ?? 0) / (TOP * (neutral[channel] ?? 1))),
    ),
  );
  const plane = (of: (r: number, g: number, b: number) => number): Plane => ({
    width,
    height,
    values: Float32Array.from({ length: width * height }, (_, i) =>
      of(roots[0]?.[i] ?? 0, roots[1]?.[i] ?? 0, roots[2]?.[i] ?? 0),
    ),
  });
  const light = plane((r, g, b) => (r + g + b) / 3);
  const strength = (STRENGTH * noiseOf(light)) ** 2;
  const red = guided(
    plane((r, g) => r - g),
    light,
    COLOR_RADIUS,
    strength,
  ).values;
  const blue = guided(
    plane((_, g, b) => b - g),
    light,
    COLOR_RADIUS,
    strength,
  ).values;
  const lit = taken === 'color' ? light.values : guided(light, light, LIGHT_RADIUS, strength).values;

  const out = new Uint16Array(data.length);
  const put = (at: number, root: number, channel: number): void => {
    const value = Math.max(0, root) ** 2 * TOP * (neutral[channel] ?? 1);
    out[at + channel] = Math.min(TOP, Math.round(value));
  };
  for (let i = 0; i < lit.length; i++) {
    const [y, u, w] = [lit[i] ?? 0, red[i] ?? 0, blue[i] ?? 0];
    const green = y - (u + w) / 3;
    put(i * 3, green + u, 0);
    put(i * 3, green, 1);
    put(i * 3, green + w, 2);
  }
  return { data: out, width, height };
}

/**
 * The standard deviation of what differs from place to place: the median of the diagonal details by 0.6745 (D. L. Donoho and
 * I. M. Johnstone, "Ideal spatial adaptation by wavelet shrinkage", Biometrika 81, 1994).
 */
export function noiseOf({ values, width, height }: Plane): number {
  const details: number[] = [];
  for (let y = 0; y + 1 < height; y += 2)
    for (let x = 0; x + 1 < width; x += 2) {
      const at = y * width + x;
      const upper = (values[at] ?? 0) - (values[at + 1] ?? 0);
      const lower = (values[at + width] ?? 0) - (values[at + width + 1] ?? 0);
      details.push(Math.abs(upper - lower) / 2);
    }
  details.sort((a, b) => a - b);
  return (details[details.length >> 1] ?? 0) / 0.6745;
}

/**
 * A plane made smooth where its guide is: K. He, J. Sun and X. Tang, "Guided image filtering", IEEE Transactions on Pattern
 * Analysis and Machine Intelligence 35, 2013.
 * @param variance of the guide; where it varies less, the mean is taken
 */
function guided(plane: Plane, guide: Plane, radius: number, variance: number): Plane {
  const { width, height } = plane;
  const product = (one: Float32Array, other: Float32Array): Plane => ({
    width,
    height,
    values: one.map((value, i) => value * (other[i] ?? 0)),
  });
  const [mean, meanOfGuide] = [boxMean(plane, radius), boxMean(guide, radius)];
  const together = boxMean(product(plane.values, guide.values), radius);
  const squares = boxMean(product(guide.values, guide.values), radius);
  const slope = new Float32Array(mean.length);
  const rest = new Float32Array(mean.length);
  for (let i = 0; i < mean.length; i++) {
    const [m, g] = [mean[i] ?? 0, meanOfGuide[i] ?? 0];
    const varies = Math.max(0, (squares[i] ?? 0) - g * g);
    const a = variance + varies > 0 ? ((together[i] ?? 0) - m * g) / (varies + variance) : 0;
    slope[i] = a;
    rest[i] = m - a * g;
  }
  const slopes = boxMean({ width, height, values: slope }, radius);
  const rests = boxMean({ width, height, values: rest }, radius);
  return { width, height, values: guide.values.map((value, i) => (slopes[i] ?? 0) * value + (rests[i] ?? 0)) };
}

/** The mean over a square about each place, as far as the plane goes. */
function boxMean({ values, width, height }: Plane, radius: number): Float32Array {
  const sums = new Float64Array((width + 1) * (height + 1));
  for (let y = 0; y < height; y++) {
    let row = 0;
    for (let x = 0; x < width; x++) {
      row += values[y * width + x] ?? 0;
      sums[(y + 1) * (width + 1) + x + 1] = (sums[y * (width + 1) + x + 1] ?? 0) + row;
    }
  }
  const at = (x: number, y: number): number => sums[y * (width + 1) + x] ?? 0;
  const out = new Float32Array(values.length);
  for (let y = 0; y < height; y++) {
    const [above, below] = [Math.max(0, y - radius), Math.min(height, y + radius + 1)];
    for (let x = 0; x < width; x++) {
      const [left, right] = [Math.max(0, x - radius), Math.min(width, x + radius + 1)];
      const sum = at(right, below) - at(left, below) - at(right, above) + at(left, above);
      out[y * width + x] = sum / ((right - left) * (below - above));
    }
  }
  return out;
}
