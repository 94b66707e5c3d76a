/** The demo's scene by two of its cameras: a camera match brings them together. */
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { matchCameras, sharedPatches, type MatchPicture } from '@/core/look/camera-match';
import { must } from '@/core/must';
import { cameras, type Camera } from './cameras';
import { cameraFrame, cameraFrames } from './frames';
import type { Variant } from './profiles';

/** The vessels in daylight, as the camera itself would have rendered them, set to a variant. */
async function vesselsBy(camera: Camera, variant: Variant): Promise<MatchPicture> {
  const { jpeg } = await cameraFrame({ ...must(cameraFrames[0]), camera, variant });
  const { data, info } = await sharp(jpeg).resize({ width: 900 }).raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, channels: 3, data: new Uint8Array(data) };
}

test('what two cameras are apart on the patches of one scene is at least halved', async () => {
  const [alder, ondine] = [
    await vesselsBy(must(cameras[0]), 'Standard'),
    await vesselsBy(must(cameras[2]), 'Portrait'),
  ];
  const { before, after, patches } = matchCameras(sharedPatches(alder, ondine));
  expect(patches.filter(({ used }) => used).length).toBeGreaterThan(100);
  expect(after.mean).toBeLessThan(before.mean / 2);
}, 240_000);
