/**
 * The chart that goes through an editor and comes back: square patches of one color each, in a grid that is known from a
 * few numbers. Its points are shuffled, so that no place of the picture stands for one part of the colors; corner marks tell
 * how it lies, a line of black and white patches which chart it is; probes lie between the points; and some colors come
 * again in dark and in bright surroundings, where whatever looks at neighbours gives itself away.
 */
import { crc32 } from '../crc32';
import { Problem } from '../problem';
import { seeded } from '../random';
import { haltonPoints } from '../look/residual';

/** Pixels of a patch on each side. */
export const PATCH = 16;
export const LEAST_SIZE = 2;
export const MOST_SIZE = 65;

/** What a chart is given to: rendered files of a depth, or camera data. */
export const chartKinds = ['8 bits', '16 bits', 'camera data'] as const;
export type ChartKind = (typeof chartKinds)[number];

/** The largest number of a chart. */
export const MOST_NUMBER = 0xffffff;

export interface ChartName {
  /** points an axis */ size: number;
  kind: ChartKind;
  /** of this very chart, 0…16,777,215 */ id: number;
}

/** What a patch is there for. */
export const ROLE = { margin: 0, mark: 1, code: 2, point: 3, probe: 4, dark: 5, bright: 6, again: 7 } as const;

export interface Layout {
  name: ChartName;
  columns: number;
  rows: number;
  /** sRGB code values 0…1, three a patch, row by row */ colors: Float64Array;
  role: Uint8Array;
  /** which point, probe, color of a surrounding, or bit it is */ index: Int32Array;
}

/** Marks of 3 × 3 patches look the same whichever way they are turned, so that they tell corners apart in any turn. */
export const marks = [
  [1, 1, 1, 1, 0, 1, 1, 1, 1],
  [0, 0, 0, 0, 1, 0, 0, 0, 0],
  [0, 1, 0, 1, 1, 1, 0, 1, 0],
  [1, 0, 1, 0, 1, 0, 1, 0, 1],
] as const;
export const MARK = 3;
/** Corners in the order of the marks: top left, top right, bottom right, bottom left, as column and row of their first patch. */
export const cornersOf = (columns: number, rows: number): [number, number][] => [
  [0, 0],
  [columns - MARK, 0],
  [columns - MARK, rows - MARK],
  [0, rows - MARK],
];

const BITS = 72;
const MAGIC = 0xe7;
const VERSION = 1;
const LEAST_COLUMNS = BITS + 2 * MARK + 2;

/** Colors that come again, and where they stand within a surrounding of 9 × 9 patches. */
export const SURROUND = 9;
const SURROUNDINGS = { across: 4, down: 2 };
const DARK = 0.12;
const BRIGHT = 0.88;
export const REPEATED: readonly (readonly [number, number, number])[] = [
  [0.25, 0.25, 0.25],
  [0.5, 0.5, 0.5],
  [0.75, 0.75, 0.75],
  [0.6, 0.3, 0.3],
  [0.3, 0.6, 0.3],
  [0.3, 0.3, 0.6],
  [0.6, 0.6, 0.3],
  [0.6, 0.3, 0.6],
  [0.3, 0.6, 0.6],
  [0.7, 0.5, 0.4],
  [0.4, 0.4, 0.45],
  [0.55, 0.6, 0.65],
];
const PROBES = 512;
/** Points that come twice more among the others. */
const AGAIN = 96;

/** The bits of a chart's name with a check sum, each true for white. */
export function codeBits({ size, kind, id }: ChartName): boolean[] {
  const bytes = [MAGIC, VERSION, size, chartKinds.indexOf(kind), id >> 16, (id >> 8) & 255, id & 255];
  const sum = crc32(Uint8Array.from(bytes)) & 0xffff;
  return [...bytes, sum >> 8, sum & 255].flatMap((byte) =>
    Array.from({ length: 8 }, (_, bit) => ((byte >> (7 - bit)) & 1) === 1),
  );
}

/** The name that bits say; null where their check sum does not hold. */
export function nameOfBits(bits: readonly boolean[]): ChartName | null {
  const bytes = Array.from({ length: BITS / 8 }, (_, byte) =>
    bits.slice(byte * 8, byte * 8 + 8).reduce((all, bit) => all * 2 + Number(bit), 0),
  );
  const [magic, version, size, kind, a, b, c, high, low] = bytes as [number, ...number[]];
  const sum = crc32(Uint8Array.from(bytes.slice(0, 7))) & 0xffff;
  const what = chartKinds[kind!];
  if (magic !== MAGIC || version !== VERSION || sum !== high! * 256 + low! || !what) return null;
  return { size: size!, kind: what, id: (a! << 16) | (b! << 8) | c! };
}

/** First column of the code's patches. */
export const CODE_START = MARK + 1;
export const CODE_BITS = BITS;

export function checkSize(size: number): void {
  if (Number.isInteger(size) && size >= LEAST_SIZE && size <= MOST_SIZE) return;
  throw new Problem(
    'chart-size',
    `A chart has ${LEAST_SIZE} to ${MOST_SIZE} points an axis, not ${size}.`,
    'size',
    'Choose 17, 33 or 48.',
  );
}

const surroundings = (columns: number, rows: number) => {
  const places: { column: number; row: number; bright: boolean }[] = [];
  for (let down = 0; down < SURROUNDINGS.down; down++)
    for (let across = 0; across < SURROUNDINGS.across; across++)
      places.push({
        column: Math.floor(((across + 0.5) * columns) / SURROUNDINGS.across - SURROUND / 2),
        row: MARK + Math.floor(((down + 0.5) * (rows - 2 * MARK)) / SURROUNDINGS.down - SURROUND / 2),
        bright: (across + down) % 2 === 1,
      });
  return places;
};

/** A mutable grid of patches. */
class Grid {
  readonly colors: Float64Array;
  readonly role: Uint8Array;
  readonly index: Int32Array;
  constructor(
    readonly columns: number,
    readonly rows: number,
  ) {
    this.colors = new Float64Array(columns * rows * 3).fill(0.5);
    this.role = new Uint8Array(columns * rows);
    this.index = new Int32Array(columns * rows).fill(-1);
  }
  put(column: number, row: number, role: number, index: number, color: ArrayLike<number>): void {
    const at = row * this.columns + column;
    this.role[at] = role;
    this.index[at] = index;
    for (let c = 0; c < 3; c++) this.colors[at * 3 + c] = color[c]!;
  }
}

const gray = (value: number): number[] => [value, value, value];

function putMarks(grid: Grid): void {
  cornersOf(grid.columns, grid.rows).forEach(([column, row], corner) => {
    marks[corner]!.forEach((bit, at) =>
      grid.put(column + (at % MARK), row + Math.floor(at / MARK), ROLE.mark, corner, gray(bit)),
    );
  });
}

/** Twice: above and below. */
function putCode(grid: Grid, name: ChartName): void {
  codeBits(name).forEach((bit, at) => {
    for (const row of [1, grid.rows - 2]) grid.put(CODE_START + at, row, ROLE.code, at, gray(bit ? 1 : 0));
  });
}

function putSurroundings(grid: Grid): void {
  for (const { column, row, bright } of surroundings(grid.columns, grid.rows)) {
    const role = bright ? ROLE.bright : ROLE.dark;
    for (let at = 0; at < SURROUND * SURROUND; at++)
      grid.put(column + (at % SURROUND), row + Math.floor(at / SURROUND), role, -1, gray(bright ? BRIGHT : DARK));
    REPEATED.forEach((color, index) =>
      grid.put(column + 1 + 3 * (index % 3), row + 1 + 2 * Math.floor(index / 3), role, index, color),
    );
  }
}

/** The color of a point of a table: red fastest. */
export function pointColor(size: number, index: number): [number, number, number] {
  const last = size - 1;
  return [(index % size) / last, (Math.floor(index / size) % size) / last, Math.floor(index / size ** 2) / last];
}

/** What stands anywhere: points, probes, and some points again. */
function scattered(size: number): { role: number; index: number; color: ArrayLike<number> }[] {
  const points = Array.from({ length: size ** 3 }, (_, index) => ({
    role: ROLE.point,
    index,
    color: pointColor(size, index),
  }));
  const probes = haltonPoints(PROBES);
  const step = Math.max(1, Math.floor(size ** 3 / AGAIN));
  const again = Array.from({ length: AGAIN }, (_, at) => (at * step) % size ** 3).flatMap((index) =>
    [0, 1].map(() => ({ role: ROLE.again, index, color: pointColor(size, index) })),
  );
  return [
    ...points,
    ...Array.from({ length: PROBES }, (_, index) => ({
      role: ROLE.probe,
      index,
      color: probes.subarray(index * 3, index * 3 + 3),
    })),
    ...again,
  ];
}

/** The input of a probe. */
export const probeColors = (): Float64Array => haltonPoints(PROBES);

function shuffled<T>(list: T[], random: () => number): T[] {
  for (let i = list.length - 1; i > 0; i--) {
    const k = Math.floor(random() * (i + 1));
    [list[i], list[k]] = [list[k]!, list[i]!];
  }
  return list;
}

/** Always wider than high, so that a chart on its side is told by its shape. */
export function shapeOf(size: number): { columns: number; rows: number } {
  const body = size ** 3 + PROBES + 2 * AGAIN + SURROUNDINGS.across * SURROUNDINGS.down * SURROUND ** 2;
  const columns = Math.max(LEAST_COLUMNS, 2 * Math.ceil(Math.sqrt(body * 1.15) / 2));
  const rows = Math.max(Math.ceil(body / columns), 2 * (SURROUND + 1)) + 2 * MARK;
  return { columns, rows };
}

const layouts = new Map<string, Layout>();

/** The patches of a chart; the same for the same name. */
export function layoutOf(name: ChartName): Layout {
  checkSize(name.size);
  const key = JSON.stringify(name);
  const known = layouts.get(key);
  if (known) return known;
  const { columns, rows } = shapeOf(name.size);
  const grid = new Grid(columns, rows);
  putMarks(grid);
  putCode(grid, name);
  putSurroundings(grid);
  const free: number[] = [];
  for (let at = MARK * columns; at < (rows - MARK) * columns; at++) if (grid.role[at] === ROLE.margin) free.push(at);
  // where the same chart is shuffled is told by its size alone, so that one layout serves all of a size
  const places = shuffled(free, seeded(name.size * 7919));
  scattered(name.size).forEach(({ role, index, color }, at) => {
    const place = places[at]!;
    grid.put(place % columns, Math.floor(place / columns), role, index, color);
  });
  const layout = { name, columns, rows, colors: grid.colors, role: grid.role, index: grid.index };
  layouts.clear();
  layouts.set(key, layout);
  return layout;
}
