/** What can be made again of a frame, on disk: made once, whole or not at all, whoever asks for it at the same time. */
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp, { type OutputInfo, type Sharp } from 'sharp';
import { Problem } from '@/core/problem';
import { dataFolder } from '../data-folder';

export const folderOf = (kind: 'frames' | 'full'): string => join(dataFolder(), 'cache', kind);

/** Writes a file so that nobody sees a part of it. */
export async function writeWhole(folder: string, name: string, bytes: Uint8Array): Promise<void> {
  await mkdir(folder, { recursive: true });
  const file = join(folder, name);
  const part = `${file}.${process.pid}.${Math.random().toString(36).slice(2, 8)}`;
  await writeFile(part, bytes);
  await rename(part, file);
}

/** A file of the cache of frames, or what it is made of. */
export async function cached(name: string, make: () => Promise<Buffer>): Promise<Buffer> {
  try {
    return await readFile(join(folderOf('frames'), name));
  } catch {
    /* not made yet */
  }
  const bytes = await make();
  await writeWhole(folderOf('frames'), name, bytes);
  return bytes;
}

export const widths = [320, 900, 1500] as const;
/** A stored picture as PNG, at the first of the offered widths that is wide enough. */
export function atWidth(
  row: { sha256: Buffer; width: number },
  width: number,
  bytes: () => Promise<Buffer>,
): Promise<Buffer> {
  const usual = widths.find((x) => x >= width) ?? 1500;
  return cached(`${row.sha256.toString('hex')}-${usual}.png`, async () =>
    usual >= row.width
      ? bytes()
      : sharp(await bytes(), { limitInputPixels: 120e6 })
          .resize({ width: usual, kernel: 'lanczos3' })
          .png({ compressionLevel: 6 })
          .toBuffer(),
  );
}

/** Any picture as sRGB of 8 bits, upright and opaque; by its own profile, without one taken as sRGB. (Converting by the target's profile is right at every depth; by colour space alone it is not.) */
export const displayed = (source: Buffer | Uint8Array): Sharp =>
  sharp(source, { limitInputPixels: 250e6, failOn: 'error' })
    .rotate()
    .withIccProfile('srgb')
    .flatten({ background: '#808080' });

/** The same as PNG no larger than screens need. */
export async function displayedPng(
  source: Buffer | Uint8Array,
  name: string,
  remedy: string,
): Promise<{ data: Buffer; info: OutputInfo }> {
  try {
    return await displayed(source)
      .resize({ width: 3000, height: 3000, fit: 'inside', withoutEnlargement: true })
      .png({ compressionLevel: 6 })
      .toBuffer({ resolveWithObject: true });
  } catch (error) {
    throw new Problem(
      'picture-broken',
      `The picture cannot be decoded: ${(error as Error).message.slice(0, 120)}`,
      name,
      remedy,
    );
  }
}
