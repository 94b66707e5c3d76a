/** What a camera profile makes of a frame of camera data, as a picture. */
import sharp from 'sharp';
import { oriented, shownSize } from '@/core/frame/orient';
import { Problem } from '@/core/problem';
import { getBlob, hex } from '../blobs/service';
import { pool } from '../db/pool';
import { cached } from '../frames/cache';
import { cameraDataOf } from '../frames/queries';
import { versionFor } from '../items/service';
import { allow, type Person } from '../people/roles';
import { compute } from '../threads/computing';

const WIDTH = 900;

/**
 * A frame's camera data developed by a camera profile: PNG, 900 pixels wide, with the frame's own neutral. Throws a Problem
 * where either is another thing.
 */
export async function profilePicture(person: Person, versionId: string, frameId: string): Promise<Buffer> {
  allow(person, 'view');
  const [version, frame] = await Promise.all([versionFor(person, versionId), cameraDataOf(pool(), frameId)]);
  if (version.kind !== 'camera-profile' || version.format !== 'dcp')
    throw new Problem(
      'preview-kind',
      'Only DNG camera profiles develop a frame.',
      version.title,
      'Open its facts instead.',
    );
  if (!frame?.camera_data)
    throw new Problem(
      'frame-rendered',
      'A camera profile needs camera data.',
      frame?.name ?? frameId,
      'Choose a frame of the kind "camera data".',
    );
  const { camera_data: data } = frame;
  return cached(`${hex(data)}-by-${hex(version.sha256)}.png`, async () => {
    const [bytes, profile] = await Promise.all([getBlob(data), getBlob(version.sha256)]);
    const made = await compute('developed', { bytes, profile, width: WIDTH });
    const [width, height] = shownSize(made.width, made.height, made.orientation);
    return sharp(oriented(made.data, made.width, made.height, 3, made.orientation), {
      raw: { width, height, channels: 3 },
    })
      .png({ compressionLevel: 6 })
      .toBuffer();
  });
}
