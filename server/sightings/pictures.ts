/** Pictures of a sighting: what the editor was given, what it made of it, what we make of it, and where the two differ. */
import sharp from 'sharp';
import { Problem } from '@/core/problem';
import { getBlob } from '../blobs/service';
import { pool } from '../db/pool';
import { displayed } from '../frames/cache';
import { versionById } from '../items/queries';
import { tableSource } from '../items/service';
import type { Person } from '../people/roles';
import { compute } from '../threads/computing';
import { sightingFor, unknownSighting } from './service';

export const sightingPictures = ['given', 'back', 'ours', 'difference'] as const;
export type SightingPicture = (typeof sightingPictures)[number];

export interface Pixels {
  data: Buffer;
  width: number;
  height: number;
}

/** As sRGB, RGBA of 8 bits, by the profile that it bears. */
export async function pixelsOf(bytes: Buffer, what: string): Promise<Pixels> {
  try {
    const { data, info } = await displayed(bytes)
      .ensureAlpha()
      .raw({ depth: 'uchar' })
      .toBuffer({ resolveWithObject: true });
    return { data, width: info.width, height: info.height };
  } catch (error) {
    throw new Problem(
      'picture-broken',
      `The picture cannot be read: ${(error as Error).message.slice(0, 120)}`,
      what,
      'Export it again, as PNG or as JPEG of the best quality.',
    );
  }
}

/** As PNG. Throws a Problem where nothing has come back yet. */
export async function sightingPicture(person: Person, id: string, which: SightingPicture): Promise<Buffer> {
  const { picture_sha256: given, result_sha256: back, ...sighting } = await sightingFor(person, id);
  if (which === 'given') return getBlob(given);
  if (!back) throw new Problem('not-found', 'No picture has come back yet.', id, 'Wait until the editor has made it.');
  if (which === 'back') return getBlob(back);
  const version = await versionById(pool(), sighting.version_id);
  if (!version) throw unknownSighting(id);
  const [before, after] = [
    await pixelsOf(await getBlob(given), sighting.frame),
    await pixelsOf(await getBlob(back), sighting.title),
  ];
  const source = await tableSource(version);
  const made = await compute('seenPictures', { source, given: before.data, back: after.data });
  const { width, height } = before;
  return sharp(made[which], { raw: { width, height, channels: 4 } })
    .removeAlpha()
    .png({ compressionLevel: 6 })
    .toBuffer();
}
