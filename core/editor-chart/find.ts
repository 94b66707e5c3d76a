/**
 * Where a chart lies in a picture: edges between patches stand in columns and rows sixteen pixels apart. Whether they do,
 * everywhere and from the same start, tells a picture that was resized, turned or cut from one that was not.
 */
import { Problem } from '../problem';
import { cornersOf, layoutOf, MARK, marks, PATCH, type ChartName, CODE_BITS, CODE_START, nameOfBits } from './layout';
import { lumaOf, type ChartImage } from './image';

const TURN = 2 * Math.PI;
/** Farther than this from where it should be, in pixels, an edge was moved. */
const MOVED = 0.2;
/** The share of the edges that must stand in one rhythm. */
const IN_RHYTHM = 0.5;
/** Lines of pixels that are looked at: one in so many. */
const EVERY = 5;

export const chartProblem = (code: string, message: string, where: string, remedy: string): Problem =>
  new Problem(code, message, where, remedy);

const AGAIN = 'Export the chart anew, at its full size, without cropping, turning or resizing it.';

/** The rhythm of edges across one part of the picture: the phase in pixels, and the share of edges that keep it. */
interface Rhythm {
  offset: number;
  share: number;
}

/** Strength of the edges between each column (or row) and the next, over a band of the other direction. */
function edges(luma: Luma, along: 'x' | 'y', from: number, to: number): Float64Array {
  const { width, height, values } = luma;
  const length = along === 'x' ? width : height;
  const step = along === 'x' ? 1 : width;
  const across = along === 'x' ? width : 1;
  const out = new Float64Array(length);
  for (let line = from; line < to; line += EVERY) {
    const start = line * across;
    for (let i = 0; i + 1 < length; i++)
      out[i + 1]! += Math.abs(values[start + (i + 1) * step]! - values[start + i * step]!);
  }
  return out;
}

function rhythmOf(strengths: Float64Array, period: number, from = 0, to = strengths.length): Rhythm {
  let re = 0;
  let im = 0;
  let all = 0;
  for (let i = from; i < to; i++) {
    const strength = strengths[i]!;
    const angle = (TURN * i) / period;
    re += strength * Math.cos(angle);
    im += strength * Math.sin(angle);
    all += strength;
  }
  const offset = (Math.atan2(im, re) / TURN) * period;
  return { offset, share: all > 0 ? Math.hypot(re, im) / all : 0 };
}

interface Luma {
  width: number;
  height: number;
  values: Float32Array;
}

/** A period other than sixteen pixels that the edges keep; null where there is none. */
function otherPeriod(strengths: Float64Array): number | null {
  let best = { share: 0, period: 0 };
  for (let period = 3; period <= 64; period *= 1.0006) {
    const { share } = rhythmOf(strengths, period);
    if (share > best.share) best = { share, period };
  }
  return best.share > 0.3 ? best.period : null;
}

const near = (one: number, other: number): boolean => Math.abs(one - other) <= MOVED;

/** Refuses a picture whose patches do not stand sixteen pixels apart, from its first pixel on. */
export function checkRhythm(image: ChartImage): void {
  const luma = lumaOf(image);
  const { width, height } = luma;
  const columns = edges(luma, 'x', 0, height);
  const rows = edges(luma, 'y', 0, width);
  const whole = { x: rhythmOf(columns, PATCH), y: rhythmOf(rows, PATCH) };
  if (whole.x.share < IN_RHYTHM || whole.y.share < IN_RHYTHM) refuseOtherPeriod(columns, rows);
  const third = (length: number, part: number) => Math.floor((length * part) / 3);
  const ends = (strengths: Float64Array, part: number) =>
    rhythmOf(strengths, PATCH, third(strengths.length, part), third(strengths.length, part + 1)).offset;
  const stretched = !near(ends(columns, 0), ends(columns, 2)) || !near(ends(rows, 0), ends(rows, 2));
  const band = (along: 'x' | 'y', length: number, part: number) =>
    rhythmOf(edges(luma, along, third(length, part), third(length, part + 1)), PATCH).offset;
  const turned = !near(band('x', height, 0), band('x', height, 2)) && !near(band('y', width, 0), band('y', width, 2));
  if (turned) throw chartProblem('chart-rotated', 'The chart was turned by a small angle.', 'the whole picture', AGAIN);
  if (stretched)
    throw chartProblem(
      'chart-resized',
      'The chart was resized: its patches are no longer 16 pixels wide.',
      `${width} × ${height}`,
      AGAIN,
    );
  if (!near(whole.x.offset, 0) || !near(whole.y.offset, 0))
    throw chartProblem(
      'chart-cropped',
      'The chart was cut: it does not begin with a whole patch.',
      `${width} × ${height}`,
      AGAIN,
    );
}

function refuseOtherPeriod(columns: Float64Array, rows: Float64Array): never {
  const across = otherPeriod(columns);
  const down = otherPeriod(rows);
  if (across && down) {
    const percent = ((100 * across) / PATCH).toFixed(1);
    throw chartProblem(
      'chart-resized',
      `The chart was resized, to about ${percent} % of its width.`,
      'the whole picture',
      AGAIN,
    );
  }
  throw chartProblem(
    'chart-unreadable',
    'No chart is seen in this picture.',
    'the whole picture',
    'Give the chart that Etagere made, as the editor exported it.',
  );
}

/** Mean brightness of each patch's middle, for marks and codes. */
function brightness(image: ChartImage): { columns: number; rows: number; of: (column: number, row: number) => number } {
  const { values, width } = lumaOf(image);
  const half = PATCH / 2;
  return {
    columns: Math.floor(image.width / PATCH),
    rows: Math.floor(image.height / PATCH),
    of: (column, row) => values[(row * PATCH + half) * width + column * PATCH + half]!,
  };
}

type Patches = ReturnType<typeof brightness>;

/** Which mark stands at a place; -1 for none. Black and white are told from each other, not from numbers. */
function markAt(patches: Patches, column: number, row: number): number {
  const values = Array.from({ length: MARK * MARK }, (_, at) =>
    patches.of(column + (at % MARK), row + Math.floor(at / MARK)),
  );
  const low = Math.min(...values);
  const high = Math.max(...values);
  if (high - low < 0.08) return -1;
  const middle = (low + high) / 2;
  const bits = values.map((value) => Number(value > middle));
  return marks.findIndex((mark) => mark.every((bit, at) => bit === bits[at]));
}

/** What stands at each of four corners. */
const cornersSeen = (patches: Patches, x: number, y: number, columns: number, rows: number): number[] =>
  cornersOf(columns, rows).map(([column, row]) => markAt(patches, x + column, y + row));

const inOrder = (seen: readonly number[]): boolean => seen.every((mark, corner) => mark === corner);

/** The code's bits, by what lies above and below the middle of its own line. */
function bitsAt(patches: Patches, x: number, row: number): boolean[] {
  const values = Array.from({ length: CODE_BITS }, (_, bit) => patches.of(x + CODE_START + bit, row));
  const middle = (Math.min(...values) + Math.max(...values)) / 2;
  return values.map((value) => value > middle);
}

export interface Found {
  name: ChartName;
  /** first patch, where something lies around the chart */ x: number;
  y: number;
}

/** Where the first mark stands, looked for from the picture's corner inwards. */
function firstMark(patches: Patches): { x: number; y: number } | null {
  for (let y = 0; y + MARK <= patches.rows; y++)
    for (let x = 0; x + CODE_START + CODE_BITS <= patches.columns; x++)
      if (markAt(patches, x, y) === 0 && nameOfBits(bitsAt(patches, x, y + 1))) return { x, y };
  return null;
}

const UNREADABLE = 'Give the chart that Etagere made, as the editor exported it.';

/** The chart in a picture whose patches stand as they should; refuses one that is turned, cut or unknown. */
export function findChart(image: ChartImage): Found {
  const patches = brightness(image);
  const seen = cornersSeen(patches, 0, 0, patches.columns, patches.rows);
  const exact = image.width % PATCH === 0 && image.height % PATCH === 0;
  if (exact && !inOrder(seen) && new Set(seen).size === 4 && !seen.includes(-1))
    throw chartProblem('chart-rotated', 'The chart was turned or mirrored.', 'its corners', AGAIN);
  const at = firstMark(patches);
  if (!at) {
    if (seen.some((mark) => mark >= 0))
      throw chartProblem('chart-cropped', 'A part of the chart is missing.', 'its corners', AGAIN);
    throw chartProblem(
      'chart-unreadable',
      'The marks of a chart are not seen in this picture.',
      'its corners',
      UNREADABLE,
    );
  }
  const name = nameOfBits(bitsAt(patches, at.x, at.y + 1))!;
  const { columns, rows } = layoutOf(name);
  if (at.x + columns > patches.columns || at.y + rows > patches.rows)
    throw chartProblem('chart-cropped', 'A part of the chart is missing.', `${image.width} × ${image.height}`, AGAIN);
  const below = nameOfBits(bitsAt(patches, at.x, at.y + rows - 2));
  if (!inOrder(cornersSeen(patches, at.x, at.y, columns, rows)) || JSON.stringify(below) !== JSON.stringify(name))
    throw chartProblem(
      'chart-unreadable',
      'The chart’s marks do not agree with each other.',
      'its corners',
      UNREADABLE,
    );
  return { name, ...at };
}
