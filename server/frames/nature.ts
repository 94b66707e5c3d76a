/** What a picture is, told from its content: in SDR or HDR, with color or without. */
import sharp from 'sharp';
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

/** Up to this chroma in CIELAB nobody sees a color; of a picture, one sample in a thousand may have more. */
const LEAST_CHROMA = 4;
const MOST_COLORED = 0.001;
const SAMPLED_WIDTH = 200;

export async function hasColor(png: Buffer): Promise<boolean> {
  const { data, info } = await sharp(png)
    .resize({ width: SAMPLED_WIDTH, withoutEnlargement: true })
    .toColourspace('lab')
    .raw({ depth: 'float' })
    .toBuffer({ resolveWithObject: true });
  const lab = new Float32Array(data.buffer, data.byteOffset, data.byteLength / 4);
  let colored = 0;
  for (let at = 0; at < lab.length; at += info.channels)
    if (Math.hypot(lab[at + 1] ?? 0, lab[at + 2] ?? 0) > LEAST_CHROMA) colored++;
  return colored > MOST_COLORED * info.width * info.height;
}
