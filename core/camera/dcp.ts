/**
 * DNG camera profiles (DCP; Digital Negative specification 1.7, chapter 6): both byte orders, all tags kept as their
 * bytes, the known ones understood. Matrices are nine numbers, row-major.
 */
import type { Matrix } from '../color/matrix';
import { Problem } from '../problem';
import { Ifds, numbersAt } from '../tiff/ifd';
import { numbersTag, textTag, writeIfds, type RawTag } from '../tiff/write';
import { illuminantKelvin, read, tagNames } from './tags';

export const DCP_MAGIC = 0x4352;
const again = 'Ask the supplier for the profile again.';
const bad = (code: string, message: string, where: string): Problem => new Problem(code, message, where, again);

/** The file: its byte order and every tag's bytes. What renders is made from it by `profileOf`. */
export interface Dcp {
  little: boolean;
  tags: Map<number, RawTag>;
}

export function readDcp(bytes: Uint8Array): Dcp {
  if (bytes.length > 64 * 2 ** 20)
    throw bad('limit-size', 'A camera profile of more than 64 MB is not read.', `${bytes.length} bytes`);
  const ifds = new Ifds(bytes);
  if (ifds.magic !== DCP_MAGIC)
    throw bad('dcp-magic', 'This is no DNG camera profile: its magic number is another.', 'byte 2');
  const directory = ifds.read(ifds.first);
  const tags = new Map<number, RawTag>();
  for (const t of directory.tags.keys()) tags.set(t, ifds.raw(directory, t)!);
  return { little: ifds.little, tags };
}

export const writeDcp = (dcp: Dcp): Uint8Array => writeIfds(DCP_MAGIC, dcp.little, { tags: [...dcp.tags.values()] });

/** The numbers of a tag; empty where it is missing or text. */
export function numbersOf(dcp: Dcp, tag: number): number[] {
  const entry = dcp.tags.get(tag);
  if (!entry || entry.type === 2) return [];
  return numbersAt(
    new DataView(entry.data.buffer, entry.data.byteOffset, entry.data.byteLength),
    0,
    entry.type,
    entry.count,
    dcp.little,
  );
}
const texts = new Set([50708, 50709, 50931, 50932, 50934, 50936, 50942, 52552]);
export function textOf(dcp: Dcp, tag: number): string {
  const entry = dcp.tags.get(tag);
  if (!entry || (entry.type !== 2 && entry.type !== 1 && entry.type !== 7)) return '';
  const end = entry.data.indexOf(0);
  return new TextDecoder().decode(end < 0 ? entry.data : entry.data.subarray(0, end));
}

export const setNumbers = (dcp: Dcp, tag: number, type: number, values: ArrayLike<number>): void => {
  dcp.tags.set(tag, numbersTag(tag, type, values, dcp.little));
};
export const setText = (dcp: Dcp, tag: number, text: string): void => {
  dcp.tags.set(tag, textTag(tag, text));
};
export const copyOf = (dcp: Dcp): Dcp => ({ little: dcp.little, tags: new Map(dcp.tags) });

/** Every tag by its name in the specification, `Tag 12345` where it has none there: text, one number, or a list. */
export function describe(dcp: Dcp): Record<string, string | number | number[]> {
  const out: Record<string, string | number | number[]> = {};
  for (const tag of [...dcp.tags.values()].sort((a, b) => a.tag - b.tag)) {
    const name = tagNames[tag.tag] ?? `Tag ${tag.tag}`;
    if (tag.type === 2 || texts.has(tag.tag)) {
      out[name] = textOf(dcp, tag.tag);
      continue;
    }
    const numbers = numbersOf(dcp, tag.tag);
    out[name] = numbers.length === 1 ? numbers[0]! : numbers;
  }
  return out;
}

/** Hue, saturation and value divisions; triples of hue shift (degrees), saturation factor and value factor, value outermost, saturation innermost. */
export interface HsvTable {
  hues: number;
  saturations: number;
  values: number;
  data: Float32Array;
  srgb: boolean;
}
/** A profile made ready for computing. Lists have one entry an illuminant, warmest first. */
export interface Profile {
  kelvin: number[];
  color: Matrix[];
  forward: Matrix[] | null;
  maps: HsvTable[];
  look: HsvTable | null;
  exposure: number;
  curve: [number, number][] | null;
}

function matrix(dcp: Dcp, tag: number): Matrix | null {
  const numbers = numbersOf(dcp, tag);
  if (!numbers.length) return null;
  const name = tagNames[tag]!;
  if (numbers.length !== 9)
    throw bad(
      'dcp-matrix',
      `${name} has ${numbers.length} numbers instead of nine; cameras of four colors are not supported.`,
      name,
    );
  if (numbers.some((v) => !Number.isFinite(v))) throw bad('dcp-matrix', `A number of ${name} is none.`, name);
  return numbers;
}
function table(dcp: Dcp, dims: number, tag: number, encoding: number): HsvTable | null {
  const data = numbersOf(dcp, tag);
  if (!data.length) return null;
  const [h = 0, s = 0, v = 1] = numbersOf(dcp, dims);
  const name = tagNames[tag]!;
  if (h < 1 || s < 2 || v < 1 || h * s * v > 4e6)
    throw bad('dcp-table', `${tagNames[dims]!} says ${h} × ${s} × ${v}, which is no table.`, tagNames[dims]!);
  if (data.length !== h * s * v * 3)
    throw bad(
      'dcp-table',
      `${name} holds ${data.length} numbers where ${tagNames[dims]!} asks for ${h * s * v * 3}.`,
      name,
    );
  if (data.some((n) => !Number.isFinite(n))) throw bad('dcp-table', `A number of ${name} is none.`, name);
  return { hues: h, saturations: s, values: v, data: Float32Array.from(data), srgb: numbersOf(dcp, encoding)[0] === 1 };
}

/** The tone curve's points, running forwards; null without one. */
function curveOf(dcp: Dcp): [number, number][] | null {
  const flat = numbersOf(dcp, read.curve);
  if (flat.length % 2 || flat.some((v) => !Number.isFinite(v)) || flat.length === 2 || flat.length > 16384)
    throw bad('dcp-curve', 'The tone curve is no list of at least two points.', 'ProfileToneCurve');
  const curve: [number, number][] = [];
  for (let i = 0; i < flat.length; i += 2) {
    if (i && flat[i]! <= flat[i - 2]!)
      throw bad('dcp-curve', `The tone curve runs backwards at point ${i / 2 + 1}.`, 'ProfileToneCurve');
    curve.push([flat[i]!, flat[i + 1]!]);
  }
  return curve.length ? curve : null;
}

/** One map a light, in their order; a map for one light alone serves both. */
function mapsFor(dual: boolean, order: readonly number[], maps: readonly (HsvTable | null)[]): HsvTable[] {
  const [first, second] = maps;
  if (dual && first && second) return order.map((i) => maps[i]!);
  return first ? [first] : [];
}

/** What the rendering needs, checked; an illuminant without a known temperature leaves one matrix. */
export function profileOf(dcp: Dcp): Profile {
  const color = read.color.map((t) => matrix(dcp, t));
  const forward = read.forward.map((t) => matrix(dcp, t));
  const kelvins = read.illuminant.map((tag) => {
    const code = numbersOf(dcp, tag)[0];
    return code === undefined ? null : illuminantKelvin(code);
  });
  const maps = read.map.map((t) => table(dcp, read.mapDims, t, read.mapEncoding));
  if (!color[0]) throw bad('dcp-matrix', 'The profile has no color matrix of nine numbers.', 'ColorMatrix1');
  const dual = !!color[1] && kelvins[0] !== null && kelvins[1] !== null && kelvins[0] !== kelvins[1];
  // the warmer light first
  let order = [0];
  if (dual) order = kelvins[0]! < kelvins[1]! ? [0, 1] : [1, 0];
  const exposure = numbersOf(dcp, read.exposure)[0] ?? 0;
  if (!Number.isFinite(exposure))
    throw bad('dcp-exposure', 'The exposure offset is no number.', 'BaselineExposureOffset');
  return {
    kelvin: dual ? order.map((i) => kelvins[i]!) : [kelvins[0] ?? 5000],
    color: order.map((i) => color[i]!),
    forward: forward[0] && (!dual || forward[1]) ? order.map((i) => forward[i]!) : null,
    maps: mapsFor(dual, order, maps),
    look: table(dcp, read.lookDims, read.look, read.lookEncoding),
    exposure,
    curve: curveOf(dcp),
  };
}
