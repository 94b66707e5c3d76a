/**
 * A chart that came back: its table, with every check that says whether it can be believed. What changes colors alone
 * passes; whatever looked at neighbours, moved pixels, cut values off or told another color space is refused with its place.
 */
import { deltaE2000 } from '../color/difference';
import { labOfSrgb } from '../color/lab';
import { Problem } from '../problem';
import type { Look } from '../look/look';
import { residual, type Residual } from '../look/residual';
import { sampler } from '../look/sample';
import { chartProblem, checkRhythm, findChart, type Found } from './find';
import { lumaOf, type ChartImage } from './image';
import { layoutOf, PATCH, probeColors, REPEATED, ROLE, type ChartName, type Layout } from './layout';

export interface ReadingWarning {
  code: string;
  message: string;
}
export interface ChartReading {
  look: Look;
  name: ChartName;
  /** standard deviation within patches, in code values of 255 */ noise: number;
  /** how far colors that come again are from each other, in ΔE00 */ spread: { mean: number; max: number };
  repaired: string[];
  warnings: ReadingWarning[];
  /** the table against the probes, which lie between its points */ residual: Residual;
  validFor: string;
}

/** Pixels of a patch that are averaged: its middle, away from what happens at its edges. */
const FIRST = 4;
const LAST = 12;

interface Means {
  /** three a patch, 0…1 */ values: Float64Array;
  /** standard deviation within the patches, 0…1 */ noise: number;
}

function meansOf(image: ChartImage, layout: Layout, found: Found): Means {
  const { width, channels, data, top } = image;
  const count = layout.columns * layout.rows;
  const values = new Float64Array(count * 3);
  const samples = (LAST - FIRST) ** 2;
  let squares = 0;
  for (let patch = 0; patch < count; patch++) {
    const left = (found.x + (patch % layout.columns)) * PATCH;
    const above = (found.y + Math.floor(patch / layout.columns)) * PATCH;
    for (let c = 0; c < 3; c++) {
      let sum = 0;
      let square = 0;
      for (let y = FIRST; y < LAST; y++) {
        let i = ((above + y) * width + left + FIRST) * channels + c;
        for (let x = FIRST; x < LAST; x++, i += channels) {
          const value = data[i]!;
          sum += value;
          square += value * value;
        }
      }
      const mean = sum / samples;
      values[patch * 3 + c] = mean / top;
      squares += Math.max(0, square / samples - mean * mean) / (top * top);
    }
  }
  return { values, noise: Math.sqrt(squares / (count * 3)) };
}

const LOCAL_REMEDY =
  'Switch off sharpening, noise reduction, local contrast, lens corrections and everything else that looks at neighbours or at the place in the picture; export again.';

const local = (message: string): Problem =>
  chartProblem('chart-local-adjustment', message, 'patches of the same color', LOCAL_REMEDY);

/** How far edges overshoot (above 0) or are washed out (below), as a share of the step between two patches. */
function overshootOf(image: ChartImage, layout: Layout, found: Found): number {
  const { width, values } = lumaOf(image);
  const half = PATCH / 2;
  let cross = 0;
  let square = 0;
  for (let row = 0; row < layout.rows; row++) {
    const line = ((found.y + row) * PATCH + half) * width;
    for (let column = 0; column + 1 < layout.columns; column++) {
      const at = line + (found.x + column) * PATCH;
      const own = values[at + half]!;
      const next = values[at + PATCH + half]!;
      const step = own - next;
      cross += (values[at + PATCH - 1]! - own) * step + (next - values[at + PATCH]!) * step;
      square += 2 * step * step;
    }
  }
  return square > 0 ? cross / square : 0;
}

/** An edge that overshoots by more than this share was sharpened or softened. */
const OVERSHOOT = 0.012;

function checkEdges(image: ChartImage, layout: Layout, found: Found): void {
  const overshoot = overshootOf(image, layout, found);
  if (overshoot > OVERSHOOT)
    throw local(`The picture was sharpened: edges overshoot by ${(100 * overshoot).toFixed(1)} % of their step.`);
  if (overshoot < -OVERSHOOT)
    throw local(`The picture was softened: edges fall short by ${(-100 * overshoot).toFixed(1)} % of their step.`);
}

/** Patches of each repeated color, in dark and in bright surroundings. */
function repeats(layout: Layout, role: number): number[][] {
  const out: number[][] = REPEATED.map(() => []);
  for (let patch = 0; patch < layout.role.length; patch++)
    if (layout.role[patch] === role && layout.index[patch]! >= 0) out[layout.index[patch]!]!.push(patch);
  return out;
}

const meanOver = (values: Float64Array, patches: readonly number[], channel: number): number =>
  patches.reduce((sum, patch) => sum + values[patch * 3 + channel]!, 0) / patches.length;

/** The largest distance of a patch of one color from the mean of its like, over colors and channels. */
function unevenness(values: Float64Array, groups: readonly number[][]): number {
  let most = 0;
  for (const group of groups)
    for (let c = 0; c < 3; c++) {
      const mean = meanOver(values, group, c);
      for (const patch of group) most = Math.max(most, Math.abs(values[patch * 3 + c]! - mean));
    }
  return most;
}

/** What noise and rounding alone may make of the mean of a patch, with room. */
const allowance = (image: ChartImage, noise: number): number =>
  Math.max((5 * noise) / (LAST - FIRST), image.top === 255 ? 1.6 / 255 : 0.12 / 255) + (image.lossy ? 2 / 255 : 0);

function checkSurroundings(image: ChartImage, layout: Layout, { values, noise }: Means): void {
  const dark = repeats(layout, ROLE.dark);
  const bright = repeats(layout, ROLE.bright);
  const allowed = allowance(image, noise);
  let apart = 0;
  REPEATED.forEach((_, color) => {
    for (let c = 0; c < 3; c++)
      apart = Math.max(apart, Math.abs(meanOver(values, dark[color]!, c) - meanOver(values, bright[color]!, c)));
  });
  const steps = (value: number) => (255 * value).toFixed(2);
  if (apart > allowed * 0.6)
    throw local(
      `The same color comes out otherwise among dark patches than among bright ones, by ${steps(apart)} of 255 steps.`,
    );
  const uneven = Math.max(unevenness(values, dark), unevenness(values, bright));
  if (uneven > allowed)
    throw local(
      `The same color comes out otherwise at another place of the picture, by ${steps(uneven)} of 255 steps.`,
    );
}

/** Points well inside the range that come out at its end: a warning above the first share, refused above the second. */
const CLIPPED_SOME = 0.2;
const CLIPPED_MUCH = 0.35;

function clippedShare(layout: Layout, values: Float64Array): number {
  let inside = 0;
  let clipped = 0;
  for (let patch = 0; patch < layout.role.length; patch++) {
    if (layout.role[patch] !== ROLE.point) continue;
    for (let c = 0; c < 3; c++) {
      const input = layout.colors[patch * 3 + c]!;
      if (input < 0.12 || input > 0.88) continue;
      inside += 1;
      const value = values[patch * 3 + c]!;
      if (value <= 0.0005 || value >= 0.9995) clipped += 1;
    }
  }
  return inside ? clipped / inside : 0;
}

function clippingWarning(share: number): ReadingWarning[] {
  const percent = `${(100 * share).toFixed(0)} %`;
  if (share > CLIPPED_MUCH)
    throw chartProblem(
      'chart-clipped',
      `${percent} of the middle tones come out at an end of the range: the table would hold nothing there.`,
      'points between 12 and 88 % of the range',
      'Take back exposure and contrast that the preset does not need, or use a chart of 16 bits and an export without clipping.',
    );
  if (share <= CLIPPED_SOME) return [];
  return [{ code: 'chart-clipping', message: `${percent} of the middle tones come out at an end of the range.` }];
}

/** The table, red fastest. Points that come again are averaged with themselves. */
function tableOf(layout: Layout, values: Float64Array): Look {
  const { size } = layout.name;
  const sums = new Float64Array(size ** 3 * 3);
  const counts = new Uint8Array(size ** 3);
  for (let patch = 0; patch < layout.role.length; patch++) {
    if (layout.role[patch] !== ROLE.point && layout.role[patch] !== ROLE.again) continue;
    const point = layout.index[patch]!;
    counts[point]! += 1;
    for (let c = 0; c < 3; c++) sums[point * 3 + c]! += values[patch * 3 + c]!;
  }
  const table = new Float32Array(sums.length);
  for (let i = 0; i < sums.length; i++) table[i] = sums[i]! / counts[Math.floor(i / 3)]!;
  const domain = { min: [0, 0, 0], max: [1, 1, 1] };
  return { format: 'cube', kind: '3d', size, table, title: '', domain, comments: [], warnings: [] };
}

/** The table against the colors between its points. */
function probedResidual(look: Look, layout: Layout, values: Float64Array): Residual {
  const measured = new Float64Array(probeColors().length);
  for (let patch = 0; patch < layout.role.length; patch++)
    if (layout.role[patch] === ROLE.probe)
      for (let c = 0; c < 3; c++) measured[layout.index[patch]! * 3 + c] = values[patch * 3 + c]!;
  let at = 0;
  const next = (_r: number, _g: number, _b: number, out: Float64Array | Float32Array, to: number) => {
    for (let c = 0; c < 3; c++) out[to + c] = measured[at + c]!;
    at += 3;
  };
  return residual(sampler(look), next, probeColors());
}

/** How far patches of the same color are apart, over all that come again. */
function spreadOf(layout: Layout, values: Float64Array): { mean: number; max: number } {
  const first = new Map<number, number>();
  const lab = new Float64Array(6);
  let sum = 0;
  let max = 0;
  let count = 0;
  for (let patch = 0; patch < layout.role.length; patch++)
    if (layout.role[patch] === ROLE.point) first.set(layout.index[patch]!, patch);
  for (let patch = 0; patch < layout.role.length; patch++) {
    if (layout.role[patch] !== ROLE.again) continue;
    const other = first.get(layout.index[patch]!)!;
    [patch, other].forEach((one, k) =>
      labOfSrgb(values[one * 3]!, values[one * 3 + 1]!, values[one * 3 + 2]!, lab, k * 3),
    );
    const apart = deltaE2000(lab[0]!, lab[1]!, lab[2]!, lab[3]!, lab[4]!, lab[5]!);
    sum += apart;
    max = Math.max(max, apart);
    count += 1;
  }
  return { mean: sum / count, max };
}

function checkWanted(name: ChartName, wanted: number | undefined): void {
  if (wanted !== undefined && wanted !== name.size)
    throw chartProblem(
      'chart-wrong',
      `This is a chart of ${name.size} points an axis, not of ${wanted}.`,
      'its code',
      'Give the chart that was asked for, or read this one at its own size.',
    );
}

const LOSSY: ReadingWarning = {
  code: 'chart-lossy',
  message:
    'The picture was compressed with loss: the table is as rough as that. Export as PNG or TIFF for a finer one.',
};

/**
 * @param wanted points an axis, where only one size will do
 * @throws a Problem whose code begins with "chart-" and whose remedy says what to do in the editor
 */
export function readChart(image: ChartImage, wanted?: number): ChartReading {
  checkRhythm(image);
  const found = findChart(image);
  checkWanted(found.name, wanted);
  const layout = layoutOf(found.name);
  checkEdges(image, layout, found);
  const means = meansOf(image, layout, found);
  checkSurroundings(image, layout, means);
  const clipping = clippingWarning(clippedShare(layout, means.values));
  const look = tableOf(layout, means.values);
  const isFramed = found.x > 0 || found.y > 0 || image.width > layout.columns * PATCH + PATCH;
  return {
    look,
    name: found.name,
    noise: 255 * means.noise,
    spread: spreadOf(layout, means.values),
    repaired: isFramed ? ['a border around the chart was left out'] : [],
    warnings: [...(image.lossy ? [LOSSY] : []), ...clipping],
    residual: probedResidual(look, layout, means.values),
    validFor: found.name.kind === 'camera data' ? 'camera data' : 'rendered files',
  };
}
