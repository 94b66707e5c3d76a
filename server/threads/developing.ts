/** Camera data developed in threads: whole, as an editor begins it, and at full size. */
import { plainProfile } from '@/core/camera/default-rendering';
import { profileOf, readDcp } from '@/core/camera/dcp';
import { renderer, STAGES, type Stage } from '@/core/camera/render';
import { demosaic } from '@/core/frame/demosaic';
import { fullSamples, linearPreview, readDng, type Dng } from '@/core/frame/dng';
import type { LinearPicture } from '@/core/frame/linear-picture';
import { withoutNoise, type NoiseTaken } from '@/core/frame/noise';
import { oriented, shownSize } from '@/core/frame/orient';
import type { CalibratedLens } from '@/core/lens/calibrated';
import { correctionOf, type PhotoTaken } from '@/core/lens/correction';
import { unbent } from '@/core/lens/warp';
import { ourPicture, type TableSource } from './sources';

/** Linear camera RGB of a DNG, no wider than asked, as shown: 16 bits a channel. */
export function linear({ bytes, width }: { bytes: Uint8Array; width: number }) {
  const dng = readDng(bytes);
  const upright = shownSize(1, 2, dng.orientation)[0] === 1;
  const stored = linearPreview(dng, upright ? width : Math.max(1, Math.round((width * dng.width) / dng.height)));
  const [shownWidth, shownHeight] = shownSize(stored.width, stored.height, dng.orientation);
  const data = oriented(stored.data, stored.width, stored.height, 3, dng.orientation);
  return { width: shownWidth, height: shownHeight, data: new Uint8Array(data.buffer, 0, data.byteLength) };
}

/** How camera data is brought to colors. */
interface Rendering {
  /** a DCP by which it is developed instead of its own profile */ profile?: Uint8Array;
  /** the rungs of the profile that act; without, all of them */ stages?: readonly Stage[];
  /** whether it is made lighter by as much as the file asks for */ byBaseline?: boolean;
}
interface DevelopAsked extends Rendering {
  /** a DNG */ bytes: Uint8Array;
  width: number;
  /** by which calibration it is corrected, if by one */ lens?: { lens: CalibratedLens; taken: PhotoTaken };
}

interface Stored {
  data: Uint8Array;
  width: number;
  height: number;
  orientation: number;
}

/** Camera RGB by a profile, its own, or the plain one: sRGB of 8 bits, as stored. */
function rendered(dng: Dng, photo: LinearPicture, asked: Rendering): Stored {
  const { profile, stages = STAGES, byBaseline = false } = asked;
  const by = profileOf(profile ? readDcp(profile) : plainProfile(dng.profile));
  const exposed = byBaseline ? { ...by, exposure: by.exposure + dng.baseline } : by;
  const run = renderer(exposed, dng.neutral, stages, 'srgb');
  const data = new Uint8Array(photo.data.length);
  const row = new Float64Array(photo.width * 3);
  for (let at = 0; at < data.length; at += row.length) {
    for (let i = 0; i < row.length; i++) row[i] = (photo.data[at + i] ?? 0) / 65535;
    run(row);
    for (let i = 0; i < row.length; i++) data[at + i] = Math.round(255 * Math.min(1, Math.max(0, row[i] ?? 0)));
  }
  return { data, width: photo.width, height: photo.height, orientation: dng.orientation };
}

/** A DNG developed, no wider than asked. */
export function developed({ bytes, width, lens, ...asked }: DevelopAsked): Stored {
  const dng = readDng(bytes);
  const found = lens && correctionOf(lens.lens, lens.taken);
  const photo = linearPreview(dng, width);
  return rendered(dng, found?.is === 'known' ? unbent(photo, found.correction) : photo, asked);
}

interface Laid {
  /** what is laid over it, in this order */ layers: TableSource[];
}
type OpenedAsked =
  | ({ of: 'camera data' } & Laid & DevelopAsked)
  | ({
      of: 'picture';
      /** sRGB, RGBA of 8 bits */ pixels: Uint8Array;
      width: number;
      height: number;
    } & Laid);

interface Shown {
  /** RGBA of 8 bits */ data: Uint8Array;
  width: number;
  height: number;
}

async function laidOver(begun: Shown, layers: readonly TableSource[]): Promise<Shown> {
  let { data } = begun;
  for (const source of layers) data = new Uint8Array(await ourPicture({ source, given: data }));
  return { ...begun, data };
}

/** A photo as it is begun: developed, with what is laid over it at once; as shown. */
export async function opened(asked: OpenedAsked): Promise<Shown> {
  const begun = asked.of === 'picture' ? { ...asked, data: asked.pixels } : uprightRgba(developed(asked));
  return laidOver({ data: begun.data, width: begun.width, height: begun.height }, asked.layers);
}

interface PieceAsked extends Rendering, Laid {
  /** a DNG */ bytes: Uint8Array;
  /** of the piece, as shown */ width: number;
  height: number;
  noise: NoiseTaken | null;
}

/** A piece out of the middle of a photo at full size, as it is begun; the lens is left as it drew there. */
export async function openedPiece({ bytes, width, height, noise, layers, ...asked }: PieceAsked): Promise<Shown> {
  const dng = readDng(bytes);
  const [across, down] = shownSize(width, height, dng.orientation);
  const photo = middleOf(dng, across, down);
  const begun = rendered(dng, noise ? withoutNoise(photo, dng.neutral, noise) : photo, asked);
  return laidOver(uprightRgba(begun), layers);
}

/** Camera RGB of the middle of a DNG, as stored; a mosaic is cut where its pattern begins. */
function middleOf(dng: Dng, across: number, down: number): LinearPicture {
  const { samples, black, white } = fullSamples(dng);
  const width = Math.max(1, Math.min(dng.width, across) & ~1);
  const height = Math.max(1, Math.min(dng.height, down) & ~1);
  const left = ((dng.width - width) >> 1) & ~1;
  const above = ((dng.height - height) >> 1) & ~1;
  const channels = dng.cfa ? 1 : 3;
  const cut = new Uint16Array(width * height * channels);
  for (let y = 0; y < height; y++) {
    const from = ((above + y) * dng.width + left) * channels;
    cut.set(samples.subarray(from, from + width * channels), y * width * channels);
  }
  if (!dng.cfa) return { data: cut, width, height };
  const { cfa, neutral } = dng;
  return { data: demosaic({ width, height, cfa, black, white, neutral, samples: cut }), width, height };
}

function uprightRgba({ data, width, height, orientation }: Stored): Shown {
  const rgba = new Uint8Array((data.length / 3) * 4);
  for (let from = 0, to = 0; from < data.length; from += 3, to += 4) {
    rgba.set(data.subarray(from, from + 3), to);
    rgba[to + 3] = 255;
  }
  const [shownWidth, shownHeight] = shownSize(width, height, orientation);
  return { data: oriented(rgba, width, height, 4, orientation), width: shownWidth, height: shownHeight };
}

/** The samples of a DNG at full size, as its sensor gave them or linear, with what it takes to develop them. */
export function full({ bytes }: { bytes: Uint8Array }) {
  const dng = readDng(bytes);
  const { samples, black, white } = fullSamples(dng);
  return {
    head: {
      kind: dng.cfa ? ('mosaic' as const) : ('linear' as const),
      width: dng.width,
      height: dng.height,
      orientation: dng.orientation,
      cfa: [...(dng.cfa ?? [])],
      black,
      white,
      neutral: [...dng.neutral],
    },
    data: new Uint8Array(samples.buffer, samples.byteOffset, samples.byteLength),
  };
}
