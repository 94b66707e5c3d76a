/** What a picture is, told from its content: in SDR or HDR, with color or without. */
import sharp from 'sharp';
import { hasColor, LOOKED_AT_WIDTH } from '@/core/color/has-color';
import { cicpOf } from '@/core/icc/cicp';

/** Transfer characteristics of ITU-T H.273 that are HDR: PQ (SMPTE ST 2084) and HLG (ARIB STD-B67). */
const HDR_TRANSFERS = [16, 18];

/** HDR where the samples are floating point, or where the profile says PQ or HLG. */
export async function dynamicRange(file: Buffer): Promise<'SDR' | 'HDR'> {
  const { depth, icc } = await sharp(file, { limitInputPixels: 250e6 }).metadata();
  if (depth === 'float' || depth === 'double') return 'HDR';
  const cicp = icc ? cicpOf(icc) : null;
  return cicp && HDR_TRANSFERS.includes(cicp.transfer) ? 'HDR' : 'SDR';
}

/** Whether a picture in sRGB has color. */
export async function pictureHasColor(png: Buffer): Promise<boolean> {
  const pixels = await sharp(png)
    .resize({ width: LOOKED_AT_WIDTH, withoutEnlargement: true })
    .toColourspace('srgb')
    .ensureAlpha()
    .raw({ depth: 'uchar' })
    .toBuffer();
  return hasColor(pixels);
}
