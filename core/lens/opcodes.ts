/**
 * Corrections that a frame carries itself: the opcode list of a DNG, as it stands in OpcodeList3.
 * Digital Negative Specification 1.6, chapter 7. Points are in pixels, pixel centers at whole numbers.
 */
import { Problem } from '../problem';

/** A center, and the distance from it to the farthest corner of the picture, in pixels. */
interface Frame {
  x: number;
  y: number;
  reach: number;
}
interface Centered {
  /** 0 to 1 from the left and the top */ center: readonly [number, number];
}
/** WarpRectilinear: radial coefficients kr0 to kr3 and tangential ones kt0, kt1, a plane. */
export interface Warp extends Centered {
  planes: readonly { radial: readonly number[]; tangential: readonly [number, number] }[];
}
/** FixVignetteRadial: k0 to k4. */
export interface Vignette extends Centered {
  k: readonly number[];
}
export interface Opcodes {
  warps: Warp[];
  vignettes: Vignette[];
  /** the numbers of those that are not computed here */ others: number[];
}
export type Point = readonly [number, number];
export interface Size {
  width: number;
  height: number;
}

const WARP_RECTILINEAR = 1;
const FIX_VIGNETTE_RADIAL = 3;
const MOST_OPCODES = 1000;
const HEADER = 16;
const DOUBLE = 8;
const RADIAL = 4;
const ROW = 6;

const fault = (message: string, where: string): Problem =>
  new Problem('opcodes-broken', message, where, 'Take the raw bytes of OpcodeList3 out of the frame again.');

/** Parameters of one opcode, all big-endian whatever the order of the file. */
class Parameters {
  private at = 0;
  constructor(
    private readonly view: DataView,
    private readonly where: string,
  ) {}
  private step(size: number): number {
    if (this.at + size > this.view.byteLength) throw fault('An opcode ends before its parameters do.', this.where);
    this.at += size;
    return this.at - size;
  }
  count(): number {
    return this.view.getUint32(this.step(4));
  }
  numbers(count: number): number[] {
    const read = (): number => {
      const value = this.view.getFloat64(this.step(DOUBLE));
      if (!Number.isFinite(value)) throw fault('A parameter of an opcode is no number.', this.where);
      return value;
    };
    return Array.from({ length: count }, read);
  }
  center(): [number, number] {
    const [x = 0, y = 0] = this.numbers(2);
    if (Math.min(x, y) < 0 || Math.max(x, y) > 1) throw fault('The center lies outside the picture.', this.where);
    return [x, y];
  }
}

function warpOf(parameters: Parameters, where: string): Warp {
  const count = parameters.count();
  if (count < 1 || count > 4) throw fault(`A warp of ${count} planes is none.`, where);
  const planes = Array.from({ length: count }, () => {
    const numbers = parameters.numbers(ROW);
    const tangential: [number, number] = [numbers[RADIAL] ?? 0, numbers[RADIAL + 1] ?? 0];
    return { radial: numbers.slice(0, RADIAL), tangential };
  });
  return { planes, center: parameters.center() };
}

function vignetteOf(parameters: Parameters): Vignette {
  return { k: parameters.numbers(5), center: parameters.center() };
}

/** Throws a Problem where the bytes are no list of opcodes. */
export function readOpcodes(bytes: Uint8Array): Opcodes {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 4) throw fault('This is too short for a list of opcodes.', 'byte 0');
  const count = view.getUint32(0);
  if (count > MOST_OPCODES) throw fault(`A list of ${count} opcodes is none.`, 'byte 0');
  const out: Opcodes = { warps: [], vignettes: [], others: [] };
  let at = 4;
  for (let n = 0; n < count; n++) {
    const where = `opcode ${n + 1}, byte ${at}`;
    if (at + HEADER > bytes.length) throw fault(`${count} opcodes are announced, and ${n} are there.`, where);
    const id = view.getUint32(at);
    const length = view.getUint32(at + 12);
    at += HEADER;
    if (at + length > bytes.length) throw fault('The list ends within an opcode.', where);
    const parameters = new Parameters(new DataView(bytes.buffer, bytes.byteOffset + at, length), where);
    if (id === WARP_RECTILINEAR) out.warps.push(warpOf(parameters, where));
    else if (id === FIX_VIGNETTE_RADIAL) out.vignettes.push(vignetteOf(parameters));
    else out.others.push(id);
    at += length;
  }
  return out;
}

function frameOf({ center }: Centered, { width, height }: Size): Frame {
  const x = center[0] * (width - 1);
  const y = center[1] * (height - 1);
  return { x, y, reach: Math.hypot(Math.max(x, width - 1 - x), Math.max(y, height - 1 - y)) || 1 };
}

/** Where in the picture before the warp lies what is shown at a point after it. */
function warped(warp: Warp, size: Size, plane: number, [x, y]: Point): Point {
  const coefficients = warp.planes[warp.planes.length === 1 ? 0 : plane];
  if (!coefficients)
    throw new Problem(
      'opcodes-plane',
      `The warp has ${warp.planes.length} planes; there is none of number ${plane}.`,
      '--plane',
      'Planes are counted from 0.',
    );
  const frame = frameOf(warp, size);
  const dx = (x - frame.x) / frame.reach;
  const dy = (y - frame.y) / frame.reach;
  const square = dx * dx + dy * dy;
  const [k0 = 1, k1 = 0, k2 = 0, k3 = 0] = coefficients.radial;
  const [t0, t1] = coefficients.tangential;
  const radial = k0 + square * (k1 + square * (k2 + square * k3));
  const acrossX = t0 * 2 * dx * dy + t1 * (square + 2 * dx * dx);
  const acrossY = t1 * 2 * dx * dy + t0 * (square + 2 * dy * dy);
  return [frame.x + frame.reach * (radial * dx + acrossX), frame.y + frame.reach * (radial * dy + acrossY)];
}

/** Where in the frame as it was taken lies what is shown at a point once all warps of the list are done, in their order. */
export function throughWarps(warps: readonly Warp[], size: Size, plane: number, point: Point): Point {
  return warps.reduceRight<Point>((at, warp) => warped(warp, size, plane, at), point);
}

const ROUNDS = 40;
const NEAR = 1e-9;
const STEP = 0.5;
/** Nearer to the middle, a shift may well lead to the other side of it; in diagonals. */
const FAR_SIDE = 0.1;

/**
 * The way back: where a point of the frame as it was taken is shown.
 * @returns null where no point is shown from there
 */
export function backThroughWarps(warps: readonly Warp[], size: Size, plane: number, wanted: Point): Point | null {
  const found = solution(warps, size, plane, wanted);
  if (!found) return null;
  // past where a warp folds over, it shows places on the other side of the middle
  const [middleX, middleY] = [(size.width - 1) / 2, (size.height - 1) / 2];
  const [x, y] = [found[0] - middleX, found[1] - middleY];
  const isOther = x * (wanted[0] - middleX) + y * (wanted[1] - middleY) < 0;
  return isOther && Math.hypot(x, y) > FAR_SIDE * Math.hypot(size.width, size.height) ? null : found;
}

/** By Newton's method with differences. */
function solution(warps: readonly Warp[], size: Size, plane: number, wanted: Point): Point | null {
  const through = (x: number, y: number): Point => throughWarps(warps, size, plane, [x, y]);
  let [x, y] = wanted;
  for (let round = 0; round < ROUNDS; round++) {
    const [atX, atY] = through(x, y);
    const [offX, offY] = [atX - wanted[0], atY - wanted[1]];
    if (Math.hypot(offX, offY) < NEAR) return [x, y];
    const [rightX, rightY] = through(x + STEP, y);
    const [belowX, belowY] = through(x, y + STEP);
    const [xx, yx] = [(rightX - atX) / STEP, (rightY - atY) / STEP];
    const [xy, yy] = [(belowX - atX) / STEP, (belowY - atY) / STEP];
    const determinant = xx * yy - xy * yx;
    if (!Number.isFinite(determinant) || Math.abs(determinant) < 1e-12) return null;
    x -= (yy * offX - xy * offY) / determinant;
    y -= (xx * offY - yx * offX) / determinant;
  }
  const [atX, atY] = through(x, y);
  return Math.hypot(atX - wanted[0], atY - wanted[1]) < 1e-4 ? [x, y] : null;
}

/** What the light at a point is multiplied by, by all of the list. */
export function gainOf(vignettes: readonly Vignette[], size: Size, [x, y]: Point): number {
  return vignettes.reduce((gain, vignette) => {
    const frame = frameOf(vignette, size);
    const square = ((x - frame.x) ** 2 + (y - frame.y) ** 2) / frame.reach ** 2;
    return gain * vignette.k.reduceRight((sum, k) => (sum + k) * square, 0) + gain;
  }, 1);
}
