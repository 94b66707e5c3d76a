/** The verbs of charts that go through an editor whose mathematics nobody knows, and come back as a look. */
import { extname } from 'node:path';
import sharp from 'sharp';
import { chartKinds, LEAST_SIZE, MOST_SIZE, type ChartName } from '@/core/editor-chart/layout';
import { checkColorSpace } from '@/core/editor-chart/color-space';
import type { ChartImage } from '@/core/editor-chart/image';
import { makeChart } from '@/core/editor-chart/make';
import { readChart } from '@/core/editor-chart/read';
import { readHaldPicture } from '@/core/editor-chart/hald';
import { cameraChart } from '@/core/editor-chart/camera';
import { readDcp } from '@/core/camera/dcp';
import { writeCube } from '@/core/look/cube';
import { identityOf } from '@/core/look/identity';
import { writeHaldPng, writeHaldTiff } from '@/core/look/hald-file';
import { Problem } from '@/core/problem';
import { writeTiffPicture } from '@/core/tiff/write-picture';
import { outputPath, readInput, STANDARD, writeOutput } from './files';
import { levelOf } from './look/make';
import { storedPicture } from './picture';
import { encodePng } from './png';
import { choice, sizeOption } from './values';
import { output, size, verb, writes, type Verb } from './verb';

/** The sRGB profile, which charts say that they are in. */
async function srgbProfile(): Promise<Buffer> {
  const pixel = sharp({ create: { width: 1, height: 1, channels: 3, background: '#000' } });
  const { icc } = await sharp(await pixel.withIccProfile('srgb').png().toBuffer()).metadata();
  if (!icc) throw new Error('a picture with a profile has one');
  return icc;
}

const isTiff = (path: string): boolean => /\.tiff?$/i.test(path);

function pictureKind(path: string): void {
  if (isTiff(path) || /\.png$/i.test(path)) return;
  throw new Problem(
    'picture-format',
    `Charts are written as PNG or TIFF, not as ${extname(path) || 'this'}.`,
    path,
    'Name a .png or .tif file.',
  );
}

async function writeChart(name: ChartName, path: string): Promise<void> {
  pictureKind(path);
  const { width, height, data } = makeChart(name);
  const icc = await srgbProfile();
  const bytes = isTiff(path)
    ? writeTiffPicture({ width, height, channels: 3, data, icc })
    : encodePng(width, height, 3, data, icc);
  await writeOutput(path, bytes);
}

async function writeHald(option: string, path: string): Promise<object> {
  pictureKind(path);
  const level = levelOf(option);
  const look = identityOf(level * level);
  await writeOutput(path, isTiff(path) ? writeHaldTiff(look) : writeHaldPng(look));
  return { level, width: level ** 3, height: level ** 3 };
}

const MOST_ID = 0xffffff;

const make = verb({
  about: 'a chart to be exported by an editor; or a plain Hald image',
  example: 'chart make --size 33 -o chart.png',
  options: {
    output: { ...output, about: 'a .png or .tif file; .dng with --camera' },
    force: writes.force,
    size,
    bits: { value: 'N', about: '8 or 16, 16 without', words: ['8', '16'] },
    camera: { value: 'FILE', about: 'a DNG camera profile: a chart of camera data of its camera' },
    hald: { value: 'LEVEL', about: 'a plain Hald image of that level instead' },
    id: { value: 'N', about: 'a number by which the chart is known again' },
  },
  run: async ({ options }) => {
    const path = outputPath(options);
    if (options.hald) return writeHald(options.hald, path);
    const points = sizeOption(options.size, MOST_SIZE, 33);
    const id = Number(options.id ?? 0);
    if (!Number.isInteger(id) || id < 0 || id > MOST_ID)
      throw new Problem('usage', `${options.id} is no number of a chart.`, '--id', `Give 0 to ${MOST_ID}.`);
    if (options.camera) {
      const made = cameraChart(
        { size: points, kind: 'camera data', id },
        readDcp(new Uint8Array(readInput(options.camera, 'camera profile'))),
      );
      await writeOutput(path, made.dng);
      return {
        size: points,
        kind: 'camera data',
        id,
        camera: made.camera,
        width: made.width,
        height: made.height,
        outside: made.outside,
      };
    }
    const bits = choice(options.bits, 'bits', ['8', '16'] as const, '16');
    const name: ChartName = { size: points, kind: chartKinds[bits === '8' ? 0 : 1], id };
    await writeChart(name, path);
    const { width, height } = makeChart(name);
    return { ...name, width, height };
  },
});

interface Read {
  image: ChartImage;
  icc: Buffer | undefined;
  turned: boolean;
}

/** Numbers as stored; a picture that says how it is to be turned is turned. */
async function pictureOf(bytes: Buffer, path: string): Promise<Read> {
  const { data, info, meta, top } = await storedPicture(bytes, path, 'turned').catch((error: unknown) => {
    if (!(error instanceof Problem)) throw error;
    throw new Problem('chart-unreadable', error.message, error.where, 'Give the chart as the editor exported it.');
  });
  const { width, height } = info;
  const image: ChartImage = {
    width,
    height,
    channels: info.channels === 4 ? 4 : 3,
    data,
    top,
    lossy: meta.format === 'jpeg',
  };
  return { image, icc: meta.icc, turned: (meta.orientation ?? 1) > 1 };
}

const read = verb({
  about: 'a chart that an editor exported, as the table of what it did; every check that can refuse it',
  takes: '<picture...>',
  each: true,
  example: 'chart read exported.tif -o editor.cube',
  options: { ...writes, size },
  run: async ({ files: [file = ''], options }) => {
    const path = outputPath(options);
    const { image, icc, turned } = await pictureOf(readInput(file, 'picture'), file);
    const wanted = options.size === undefined ? undefined : sizeOption(options.size, MOST_SIZE, LEAST_SIZE);
    const hald = readHaldPicture(image);
    if (icc) await checkColorSpace(icc);
    const made = hald ?? readChart(image, wanted);
    await writeOutput(path, writeCube(made.look));
    const { noise, spread, warnings, residual, validFor } = made;
    const repaired = [...(turned ? ['turned as the picture says'] : []), ...made.repaired];
    return { noise, spread, repaired, warnings, residual, validFor, ...(path === STANDARD ? {} : { written: path }) };
  },
});

export const verbs: Record<string, Verb> = { make, read };
