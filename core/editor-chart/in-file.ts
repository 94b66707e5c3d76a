/** Whether a picture in a delivery is a chart that went through an editor: told by its size, then by its code. */
import { decode as decodePng } from 'fast-png';
import { Ifds } from '../tiff/ifd';
import { isLossyTiff } from '../tiff/lossy';
import { readTiffPicture } from '../tiff/picture';
import { findChart } from './find';
import type { ChartImage } from './image';
import { LEAST_SIZE, MOST_SIZE, PATCH, shapeOf, type ChartName } from './layout';

let sizes: Map<string, number> | null = null;

/** Points an axis of the chart that has this size, whatever is in the picture; null where none has. */
export function chartOfSize(width: number, height: number): number | null {
  sizes ??= new Map(
    Array.from({ length: MOST_SIZE - LEAST_SIZE + 1 }, (_, at) => {
      const { columns, rows } = shapeOf(LEAST_SIZE + at);
      return [`${columns * PATCH} ${rows * PATCH}`, LEAST_SIZE + at];
    }),
  );
  return sizes.get(`${width} ${height}`) ?? null;
}

function imageOf(bytes: Uint8Array, format: 'png' | 'tiff'): ChartImage | null {
  if (format === 'png') {
    const { width, height, channels, data, depth } = decodePng(bytes);
    if (channels !== 3 && channels !== 4) return null;
    return { width, height, channels, data, top: depth === 16 ? 65535 : 255, lossy: false };
  }
  // sizes were judged by the header; what is JPEG inside is told where it is read
  if (isLossyTiff(bytes)) return null;
  const ifds = new Ifds(bytes);
  const { width, height, channels, data, bits } = readTiffPicture(ifds, ifds.read(ifds.first));
  if ((channels !== 3 && channels !== 4) || data instanceof Float32Array) return null;
  return { width, height, channels, data, top: 2 ** bits - 1, lossy: false };
}

/** Which chart it is; null where its code cannot be read, which the reading itself says in full. */
export function chartInFile(bytes: Uint8Array, format: 'png' | 'tiff'): ChartName | null {
  try {
    const image = imageOf(bytes, format);
    return image && findChart(image).name;
  } catch {
    return null;
  }
}
