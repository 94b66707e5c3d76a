import sharp from 'sharp';
import { describe, expect, test } from 'vitest';
import { dynamicRange, pictureHasColor } from './nature';

const size = { width: 40, height: 30 };
const plain = (background: string) =>
  sharp({ create: { ...size, channels: 3, background } })
    .png()
    .toBuffer();

describe('what a picture is', () => {
  test('without color where it is gray, with color where a part of it is', async () => {
    expect(await pictureHasColor(await plain('#808080'))).toBe(false);
    expect(await pictureHasColor(await plain('#828080'))).toBe(false);
    expect(await pictureHasColor(await plain('#a06050'))).toBe(true);
    const spot = await sharp(await plain('#707070'))
      .composite([{ input: { create: { width: 6, height: 6, channels: 3, background: '#c02020' } }, left: 3, top: 3 }])
      .png()
      .toBuffer();
    expect(await pictureHasColor(spot)).toBe(true);
    expect(
      await pictureHasColor(
        await sharp(await plain('#777777'))
          .toColourspace('b-w')
          .png()
          .toBuffer(),
      ),
    ).toBe(false);
  });

  test('HDR where its samples are floating point, SDR in 8 and 16 bits', async () => {
    const float = await sharp(new Float32Array(40 * 30 * 3).fill(2.5), { raw: { ...size, channels: 3 } })
      .toColourspace('scrgb')
      .tiff({ compression: 'none' })
      .toBuffer();
    expect(await dynamicRange(float)).toBe('HDR');
    expect(await dynamicRange(await plain('#808080'))).toBe('SDR');
    const deep = await sharp(await plain('#808080'))
      .toColourspace('rgb16')
      .png()
      .toBuffer();
    expect(await dynamicRange(deep)).toBe('SDR');
  });
});
