/** Charts as files for an editor, and as they come back from it. Needs no database. */
import sharp from 'sharp';
import { checkColorSpace } from '@/core/editor-chart/color-space';
import { readHaldPicture, type HaldReading } from '@/core/editor-chart/hald';
import type { ChartImage } from '@/core/editor-chart/image';
import type { ChartName } from '@/core/editor-chart/layout';
import { makeChart } from '@/core/editor-chart/make';
import { readChart, type ChartReading } from '@/core/editor-chart/read';
import { Problem } from '@/core/problem';
import { isLossyTiff } from '@/core/tiff/lossy';
import { writeTiffPicture } from '@/core/tiff/write-picture';
import { encodePng } from '../pictures/png';
import { storedPicture } from '../pictures/stored';

/** The sRGB profile, which charts say that they are in. */
async function srgbProfile(): Promise<Buffer> {
  const pixel = sharp({ create: { width: 1, height: 1, channels: 3, background: '#000' } });
  const { icc } = await sharp(await pixel.withIccProfile('srgb').png().toBuffer()).metadata();
  if (!icc) throw new Error('a picture with a profile has one');
  return icc;
}

/** A chart for rendered files, of the depth that its kind says. */
export async function chartPicture(
  name: ChartName,
  file: 'png' | 'tiff',
): Promise<{ bytes: Uint8Array; width: number; height: number }> {
  const { width, height, data } = makeChart(name);
  const icc = await srgbProfile();
  const bytes =
    file === 'tiff'
      ? writeTiffPicture({ width, height, channels: 3, data, icc })
      : encodePng(width, height, 3, data, icc);
  return { bytes, width, height };
}

interface Upright {
  image: ChartImage;
  icc: Buffer | undefined;
  turned: boolean;
}

/** Numbers as stored; a picture that says how it is to be turned is turned. */
async function uprightPicture(bytes: Buffer, path: string): Promise<Upright> {
  const { data, info, meta, top } = await storedPicture(bytes, path, 'turned').catch((error: unknown) => {
    if (!(error instanceof Problem)) throw error;
    throw new Problem('chart-unreadable', error.message, error.where, 'Give the chart as the editor exported it.');
  });
  const { width, height } = info;
  const channels = info.channels === 4 ? 4 : 3;
  const image: ChartImage = { width, height, channels, data, top, lossy: meta.format === 'jpeg' || isLossyTiff(bytes) };
  return { image, icc: meta.icc, turned: (meta.orientation ?? 1) > 1 };
}

/** Reads a chart, or a plain Hald image, which has no name and was checked less. */
export type PictureReading = ChartReading | (HaldReading & { name: null });

/**
 * @param wanted points an axis, where only one size will do
 * @throws a Problem whose code begins with "chart-", and whose remedy says what to do in the editor
 */
export async function readChartPicture(bytes: Buffer, path: string, wanted?: number): Promise<PictureReading> {
  const { image, icc, turned } = await uprightPicture(bytes, path);
  const hald = readHaldPicture(image);
  if (icc) await checkColorSpace(icc);
  const read = hald ? { ...hald, name: null } : readChart(image, wanted);
  return turned ? { ...read, repaired: ['turned as the picture says', ...read.repaired] } : read;
}
