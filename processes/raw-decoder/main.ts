/**
 * A camera's own file to DNG: a program of its own, since the decoder (LibRaw as WebAssembly) takes a quarter of a gigabyte and
 * may fail on hostile input. The file comes on standard input, the DNG goes to standard output; what cannot be read is said on
 * standard error, with exit status 2.
 */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { setNumbers, setText, type Dcp } from '@/core/camera/dcp';
import { invert, multiply } from '@/core/color/matrix';
import { srgbToXyz } from '@/core/color/spaces';
import { writeDng } from '@/core/frame/dng';
import { frameFacts } from '@/core/frame/metadata';

interface Meta {
  width: number;
  height: number;
  top_margin: number;
  left_margin: number;
  raw_width: number;
  raw_height: number;
  flip: number;
  filters: number;
  colors: number;
  cdesc: string;
  camera_make: string;
  camera_model: string;
  iso_speed: number;
  aperture: number;
  focal_len: number;
  timestamp: number | Date;
  color_data: {
    black: number;
    maximum: number;
    cam_mul: number[];
    cam_xyz: number[][];
    rgb_cam: number[][];
    UniqueCameraModel: string;
    dng_color?: { illuminant: number; colormatrix: number[][] }[];
  };
  lens?: { Lens: string };
  shootinginfo?: { BodySerial: string };
}
interface LibRaw {
  open(bytes: Uint8Array, settings: object): void;
  metadata(full: boolean): Meta;
  rawImageData(): { data: Uint16Array } | undefined;
  thumbnailData(): { data: Uint8Array; format: string } | undefined;
}

class Refused extends Error {}
const three = (m: number[][] | undefined): number[] => (m ?? []).slice(0, 3).flatMap((r) => r.slice(0, 3));

/** XYZ to camera, from what the decoder knows of this camera: its own tables, else its matrix to sRGB. */
function colorMatrix(colors: Meta['color_data']): { matrix: number[]; illuminant: number } {
  for (const own of colors.dng_color ?? []) {
    const matrix = three(own.colormatrix);
    if (matrix.some((v) => v !== 0)) return { matrix, illuminant: own.illuminant || 21 };
  }
  const known = three(colors.cam_xyz);
  if (known.length === 9 && known.some((v) => v !== 0)) return { matrix: known, illuminant: 21 };
  try {
    return { matrix: invert(multiply(srgbToXyz, three(colors.rgb_cam))), illuminant: 21 };
  } catch {
    return { matrix: invert(srgbToXyz), illuminant: 21 };
  }
}

/** Channel of each of the 2 × 2 places, as the decoder packs them: two bits a place, eight rows of two. */
function patternOf(meta: Meta): [number, number, number, number] {
  if (meta.colors !== 3 || meta.filters < 1000)
    throw new Refused('Its sensor is of a pattern that is not developed here.');
  const at = (row: number, column: number): number => {
    const c = (meta.filters >>> ((((row << 1) & 14) + (column & 1)) << 1)) & 3;
    const letter = meta.cdesc[c] ?? 'G';
    if (letter === 'R') return 0;
    if (letter === 'B') return 2;
    return 1;
  };
  const pattern: [number, number, number, number] = [at(0, 0), at(0, 1), at(1, 0), at(1, 1)];
  for (let r = 2; r < 8; r += 2)
    if (
      at(r, 0) !== pattern[0] ||
      at(r, 1) !== pattern[1] ||
      at(r + 1, 0) !== pattern[2] ||
      at(r + 1, 1) !== pattern[3]
    )
      throw new Refused('Its sensor is of a pattern that is not developed here.');
  return pattern;
}

interface Unpacked {
  meta: Meta;
  samples: Uint16Array;
  jpeg: { data: Uint8Array; format: string } | undefined;
}

/** What the decoder makes of a file; refused where it knows none like it. */
async function unpacked(bytes: Uint8Array): Promise<Unpacked> {
  Object.assign(globalThis, { WorkerGlobalScope: class {}, self: globalThis });
  const at = createRequire(import.meta.url).resolve('libraw-wasm/dist/libraw.js');
  const { default: make } = (await import(at)) as {
    default: (o: { wasmBinary: Uint8Array }) => Promise<{ LibRaw: new () => LibRaw }>;
  };
  const raw = new (await make({ wasmBinary: readFileSync(at.replace(/libraw\.js$/, 'libraw.wasm')) })).LibRaw();
  let meta: Meta;
  let samples: Uint16Array | undefined;
  let jpeg: Unpacked['jpeg'];
  try {
    raw.open(bytes, {});
    meta = raw.metadata(true);
    samples = raw.rawImageData()?.data;
  } catch {
    throw new Refused('The decoder does not know this camera’s files, or the file is damaged.');
  }
  try {
    jpeg = raw.thumbnailData();
  } catch {
    /* it has none that can be had */
  }
  const { width, height, raw_width, raw_height } = meta;
  if (!samples?.length || !(width > 1 && height > 1) || samples.length < raw_width * raw_height)
    throw new Refused('There is no mosaic in the file.');
  return { meta, samples, jpeg };
}

/** The visible part of the sensor's samples. */
function mosaicOf({ width, height, raw_width, top_margin, left_margin }: Meta, samples: Uint16Array): Uint16Array {
  const mosaic = new Uint16Array(width * height);
  for (let y = 0; y < height; y++) {
    const from = (y + top_margin) * raw_width + left_margin;
    mosaic.set(samples.subarray(from, from + width), y * width);
  }
  return mosaic;
}

/** The color of white in the camera's own channels, the largest 1; all 1 where the file does not say. */
function neutralOf({ color_data }: Meta): number[] {
  const gains = color_data.cam_mul.slice(0, 3);
  const own = gains.length === 3 && gains.every((gain) => gain > 0) ? gains.map((gain) => 1 / gain) : [1, 1, 1];
  const top = Math.max(...own);
  return own.map((v) => v / top);
}

function dateOf({ timestamp }: Meta): string {
  const date = new Date(timestamp instanceof Date ? timestamp : timestamp * 1000);
  if (!Number.isFinite(date.getTime())) return '';
  return date.toISOString().replace('T', ' ').replace(/-/g, ':').slice(0, 19);
}

/** The color matrix alone, as a profile. */
function profileOf(meta: Meta, unique: string): Dcp {
  const { matrix, illuminant } = colorMatrix(meta.color_data);
  const profile: Dcp = { little: true, tags: new Map() };
  setText(profile, 50936, `${unique}, from the decoder`);
  setNumbers(profile, 50721, 10, matrix);
  setNumbers(profile, 50778, 3, [illuminant]);
  return profile;
}

async function main(): Promise<void> {
  const { meta, samples, jpeg } = await unpacked(new Uint8Array(readFileSync(0)));
  const cfa = patternOf(meta);
  const unique =
    meta.color_data.UniqueCameraModel ||
    [meta.camera_make, meta.camera_model].filter(Boolean).join(' ') ||
    'unknown camera';
  const shown = jpeg?.format === 'jpeg' && jpeg.data.length > 100 ? frameFacts(jpeg.data) : null;
  process.stdout.write(
    writeDng({
      width: meta.width,
      height: meta.height,
      cfa,
      mosaic: mosaicOf(meta, samples),
      black: meta.color_data.black,
      white: meta.color_data.maximum,
      neutral: neutralOf(meta),
      maker: meta.camera_make || 'unknown',
      model: meta.camera_model || 'unknown',
      unique,
      serial: meta.shootinginfo?.BodySerial ?? '',
      lens: meta.lens?.Lens ?? '',
      focal: meta.focal_len || 0,
      aperture: meta.aperture || 0,
      iso: meta.iso_speed || 0,
      date: dateOf(meta),
      profile: profileOf(meta, unique),
      jpeg: shown && jpeg ? { bytes: jpeg.data.slice(), width: shown.width, height: shown.height } : null,
      orientation: { 3: 3, 5: 8, 6: 6 }[meta.flip] ?? 1,
    }),
  );
}
main().catch((error: unknown) => {
  process.stderr.write(
    error instanceof Refused ? error.message : `The decoder failed: ${(error as Error)?.message ?? String(error)}`,
  );
  process.exitCode = 2;
});
