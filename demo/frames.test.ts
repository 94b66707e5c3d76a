import sharp from 'sharp';
import { expect, test } from 'vitest';
import { floatTiff } from './scene/float-tiff';

test('a picture of linear light keeps what is brighter than white', async () => {
  const data = Float32Array.from({ length: 4 * 2 * 3 }, (_, i) => (i < 12 ? 0.5 : 6));
  const file = Buffer.from(floatTiff(4, 2, data));
  expect(await sharp(file).metadata()).toMatchObject({
    format: 'tiff',
    width: 4,
    height: 2,
    channels: 3,
    depth: 'float',
  });
  const back = await sharp(file).pipelineColourspace('scrgb').toColourspace('scrgb').raw({ depth: 'float' }).toBuffer();
  expect(new Float32Array(back.buffer, back.byteOffset, 24)[23]).toBeCloseTo(6, 3);
});
