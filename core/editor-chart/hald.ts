/** A plain Hald image that came back: read without the checks that only a chart allows, and said so. */
import { haldLevel, lookOfHald } from '../look/hald';
import type { ChartImage } from './image';
import type { ChartReading, ReadingWarning } from './read';

const FEWER: ReadingWarning = {
  code: 'chart-plain',
  message:
    'A plain Hald image tells nothing of local adjustments, clipping or another place in the picture: these were not checked.',
};

/** How many distinct colors the first row of a chart has over a patch: one; a Hald image changes with every pixel. */
function startsWithPatch({ data, channels }: ChartImage): boolean {
  for (let x = 1; x < 8; x++)
    for (let c = 0; c < 3; c++) if (Math.abs(data[x * channels + c]! - data[c]!) > 0) return false;
  return true;
}

export type HaldReading = Omit<ChartReading, 'name' | 'spread' | 'residual' | 'noise'> & {
  noise: null;
  spread: null;
  residual: null;
};

/** Null for a picture that is no Hald image. */
export function readHaldPicture(image: ChartImage): HaldReading | null {
  const { width, height, channels, data, top, lossy } = image;
  const level = haldLevel(width, height);
  if (!level || startsWithPatch(image)) return null;
  const look = lookOfHald(data as Uint8Array | Uint16Array, width, height, channels, top, '');
  const loss: ReadingWarning[] = lossy
    ? [{ code: 'chart-lossy', message: 'The picture was compressed with loss: the table is as rough as that.' }]
    : [];
  return {
    look,
    noise: null,
    spread: null,
    repaired: [],
    warnings: [FEWER, ...loss],
    residual: null,
    validFor: 'rendered files',
  };
}
