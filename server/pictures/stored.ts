/** Pictures with their numbers as stored: depth and alpha kept, the embedded profile copied, orientation untouched. */
import { extname } from 'node:path';
import sharp, { type Metadata } from 'sharp';
import { writeFile } from 'node:fs/promises';
import { Problem } from '@/core/problem';
import { writeTiffPicture } from '@/core/tiff/write-picture';
import { encodePng } from './png';

export interface StoredPicture {
  data: Uint8Array | Uint16Array;
  info: { width: number; height: number; channels: number };
  meta: Metadata;
  /** full scale */ top: number;
}

/** A PNG, TIFF or JPEG with its numbers as stored; gray becomes RGB. `turned`: as its orientation says. */
export async function storedPicture(
  source: Buffer,
  name: string,
  upright: 'as it lies' | 'turned' = 'as it lies',
): Promise<StoredPicture> {
  let meta: Metadata;
  const options = { limitInputPixels: 400e6, ignoreIcc: true } as const;
  try {
    meta = await sharp(source, options).metadata();
  } catch {
    throw new Problem(
      'picture-unreadable',
      `${name} is no PNG, TIFF or JPEG that can be read.`,
      name,
      'Export it again as one of these.',
    );
  }
  if (!['png', 'tiff', 'jpeg'].includes(meta.format ?? ''))
    throw new Problem(
      'picture-unreadable',
      `${name} is ${meta.format}, not PNG, TIFF or JPEG.`,
      name,
      'Export it again as one of these.',
    );
  const wide = meta.depth === 'ushort';
  const gray = (meta.channels ?? 3) < 3;
  let image = sharp(source, options);
  if (upright === 'turned') image = image.rotate();
  if (gray || wide) image = image.toColourspace(wide ? 'rgb16' : 'srgb');
  const { data: raw, info } = await image
    .raw({ depth: wide ? 'ushort' : 'uchar' })
    .toBuffer({ resolveWithObject: true });
  const data = wide
    ? new Uint16Array(raw.buffer, raw.byteOffset, raw.length / 2)
    : new Uint8Array(raw.buffer, raw.byteOffset, raw.length);
  return { data, info, meta, top: wide ? 65535 : 255 };
}

export async function applyToPicture(
  source: Buffer,
  name: string,
  output: string,
  apply: (data: Uint8Array | Uint16Array, channels: number, top: number) => void,
): Promise<void> {
  const kind = extname(output).toLowerCase();
  if (!['.png', '.tif', '.tiff'].includes(kind))
    throw new Problem(
      'picture-format',
      `Pictures are written as PNG or TIFF, not as ${kind || 'this'}.`,
      output,
      'Name a .png or .tif file.',
    );
  const { data, info, meta, top } = await storedPicture(source, name);
  apply(data, info.channels, top);
  if (kind === '.png') {
    await writeFile(output, encodePng(info.width, info.height, info.channels as 3 | 4, data, meta.icc ?? null));
    return;
  }
  await writeFile(
    output,
    writeTiffPicture({
      width: info.width,
      height: info.height,
      channels: info.channels,
      data,
      icc: meta.icc ?? null,
      orientation: meta.orientation ?? 1,
    }),
  );
}
