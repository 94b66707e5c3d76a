/**
 * A look that gives one camera the color character of another, from patches that both have seen: a root polynomial of the
 * second degree (Finlayson, Mackiewicz, Hurlbert, IEEE Transactions on Image Processing 24, 2015), which stays right when the
 * exposure changes, fitted by least squares in linear light. Patches that fit nothing are left out and said.
 */
import { deltaE2000 } from '../color/difference';
import { labOfSrgb } from '../color/lab';
import { decodeSrgb, encodeSrgb } from '../color/transfer';
import { leastSquares } from '../least-squares';
import { Problem } from '../problem';
import { fromRows, type Look } from './look';
import type { Evaluate } from './sample';

export interface MatchPatch {
  name: string;
  /** where it lies in the frame that is changed: left, top, width, height as shares of the picture */
  area?: readonly [number, number, number, number];
  /** sRGB code values 0…1 of the camera that is changed */ from: readonly [number, number, number];
  /** and of the one that it is to look like */ to: readonly [number, number, number];
}
export interface MatchedPatch {
  name: string;
  area: readonly [number, number, number, number] | null;
  /** ΔE00 before and after */ before: number;
  after: number;
  used: boolean;
}
export interface CameraMatch {
  evaluate: Evaluate;
  patches: MatchedPatch[];
  before: { mean: number; max: number };
  after: { mean: number; max: number };
}

export const LEAST_PATCHES = 12;
/** Fewer than these allow for a matrix alone. */
const ENOUGH_FOR_ROOTS = 24;
/** Drawn towards changing nothing by so much, for colors that no patch tells of. */
const RIDGE = 2e-3;
/** A patch is left out where it is so many times farther off than the middle one. */
const OUTLYING = 4;
const DARKEST = 0.02;
const BRIGHTEST = 0.985;

type Triple = readonly [number, number, number];

/** The terms that are weighed: the three values, and the roots of their products. */
function terms(r: number, g: number, b: number, roots: boolean): number[] {
  const [x, y, z] = [Math.max(0, r), Math.max(0, g), Math.max(0, b)];
  return roots ? [r, g, b, Math.sqrt(x * y), Math.sqrt(y * z), Math.sqrt(x * z)] : [r, g, b];
}

const linear = (color: Triple): [number, number, number] => [
  decodeSrgb(color[0]),
  decodeSrgb(color[1]),
  decodeSrgb(color[2]),
];

function fitted(patches: readonly MatchPatch[]): number[][] {
  const roots = patches.length >= ENOUGH_FOR_ROOTS;
  const rows: number[][] = [];
  const targets: number[][] = [];
  for (const { from, to } of patches) {
    const source = linear(from);
    const wanted = linear(to);
    // an error counts for what it is seen as, so that dark patches count too
    const weight = 1 / (0.05 + Math.max(...wanted));
    rows.push(terms(...source, roots).map((value) => value * weight));
    // what is fitted is the change, so that the ridge draws towards none
    targets.push(wanted.map((value, c) => (value - source[c]!) * weight));
  }
  return [0, 1, 2].map((channel) =>
    leastSquares(
      rows,
      targets.map((target) => target[channel]!),
      RIDGE * patches.length,
    ),
  );
}

function evaluateBy(weights: readonly number[][]): Evaluate {
  const roots = weights[0]!.length > 3;
  return (r, g, b, out, at) => {
    const source = linear([r, g, b]);
    const all = terms(...source, roots);
    for (let c = 0; c < 3; c++) {
      let value = source[c]!;
      for (let k = 0; k < all.length; k++) value += weights[c]![k]! * all[k]!;
      out[at + c] = encodeSrgb(value);
    }
  };
}

function distance(one: Triple, other: Triple): number {
  const lab = new Float64Array(6);
  labOfSrgb(one[0], one[1], one[2], lab, 0);
  labOfSrgb(other[0], other[1], other[2], lab, 3);
  return deltaE2000(lab[0]!, lab[1]!, lab[2]!, lab[3]!, lab[4]!, lab[5]!);
}

/** How far each patch is off after a fit. */
function distances(evaluate: Evaluate, patches: readonly MatchPatch[]): number[] {
  const out = new Float64Array(3);
  return patches.map(({ from, to }) => {
    evaluate(from[0], from[1], from[2], out, 0);
    return distance([out[0]!, out[1]!, out[2]!], to);
  });
}

const isUsable = ({ from, to }: MatchPatch): boolean =>
  [...from, ...to].every((value) => Number.isFinite(value) && value < BRIGHTEST) &&
  Math.max(...from) > DARKEST &&
  Math.max(...to) > DARKEST;

function refuseTooFew(count: number): void {
  if (count >= LEAST_PATCHES) return;
  throw new Problem(
    'match-patches',
    `Only ${count} patches can be used; a match needs ${LEAST_PATCHES}.`,
    'the patches',
    'Take frames of one scene from the same place, in the same light, with more even areas that are neither black nor clipped; or of a chart.',
  );
}

const summed = (values: readonly number[]): { mean: number; max: number } => ({
  mean: values.reduce((sum, value) => sum + value, 0) / values.length,
  max: Math.max(...values),
});

/** @throws a Problem below twelve patches that can be used */
export function matchCameras(patches: readonly MatchPatch[]): CameraMatch {
  const usable = patches.filter(isUsable);
  refuseTooFew(usable.length);
  const first = distances(evaluateBy(fitted(usable)), usable);
  const middle = [...first].sort((a, b) => a - b)[Math.floor(first.length / 2)]!;
  const kept = usable.filter((_, index) => first[index]! <= Math.max(1, OUTLYING * middle));
  refuseTooFew(kept.length);
  const evaluate = evaluateBy(fitted(kept));
  const after = distances(evaluate, patches);
  const used = new Set(kept);
  const told = patches.map((patch, index) => ({
    name: patch.name,
    area: patch.area ?? null,
    before: distance(patch.from, patch.to),
    after: after[index]!,
    used: used.has(patch),
  }));
  const counted = told.filter((one) => one.used);
  return {
    evaluate,
    patches: told,
    before: summed(counted.map((one) => one.before)),
    after: summed(counted.map((one) => one.after)),
  };
}

/** The match as a table of so many points an axis. */
export const tableOfMatch = ({ evaluate }: Pick<CameraMatch, 'evaluate'>, points: number, title: string): Look =>
  fromRows(points, title, (values, n) => {
    for (let i = 0; i < n; i += 3) evaluate(values[i]!, values[i + 1]!, values[i + 2]!, values, i);
  });

export interface MatchPicture {
  width: number;
  height: number;
  channels: 3 | 4;
  data: Uint8Array | Uint8ClampedArray;
}

/** A cell is even where its values stray less than this from their mean. */
const EVEN = 0.035;

interface Cell {
  mean: [number, number, number];
  even: boolean;
}

/** The middle of a cell: its edges belong to neighbours as soon as the two frames are a little apart. */
function cellOf(picture: MatchPicture, column: number, row: number, columns: number, rows: number): Cell {
  const { width, height, channels, data } = picture;
  const [w, h] = [width / columns, height / rows];
  const [x0, x1] = [Math.floor((column + 0.2) * w), Math.ceil((column + 0.8) * w)];
  const [y0, y1] = [Math.floor((row + 0.2) * h), Math.ceil((row + 0.8) * h)];
  const sum = [0, 0, 0];
  const square = [0, 0, 0];
  let count = 0;
  for (let y = y0; y < y1; y++)
    for (let x = x0; x < x1; x++, count++)
      for (let c = 0; c < 3; c++) {
        const value = data[(y * width + x) * channels + c]! / 255;
        sum[c]! += value;
        square[c]! += value * value;
      }
  const mean = sum.map((value) => value / count) as [number, number, number];
  const stray = mean.map((value, c) => Math.sqrt(Math.max(0, square[c]! / count - value * value)));
  return { mean, even: Math.max(...stray) < EVEN };
}

/** Even areas that two frames of one scene share, cell by cell. */
export function sharedPatches(from: MatchPicture, to: MatchPicture, columns = 30, rows = 20): MatchPatch[] {
  if (Math.abs(from.width / from.height - to.width / to.height) > 0.02)
    throw new Problem(
      'match-shape',
      'The two frames are not of one shape.',
      `${from.width} × ${from.height}, ${to.width} × ${to.height}`,
      'Take two frames of the same scene from the same place, with the same crop.',
    );
  const out: MatchPatch[] = [];
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const one = cellOf(from, column, row, columns, rows);
      const other = cellOf(to, column, row, columns, rows);
      if (one.even && other.even)
        out.push({
          name: `column ${column + 1}, row ${row + 1}`,
          area: [column / columns, row / rows, 1 / columns, 1 / rows],
          from: one.mean,
          to: other.mean,
        });
    }
  return out;
}
