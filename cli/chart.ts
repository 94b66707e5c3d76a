/** The verbs of charts that go through an editor whose mathematics nobody knows, and come back as a look. */
import { extname } from 'node:path';
import { chartKinds, LEAST_SIZE, MOST_NUMBER, MOST_SIZE, type ChartName } from '@/core/editor-chart/layout';
import { cameraChart } from '@/core/editor-chart/camera';
import { readDcp } from '@/core/camera/dcp';
import { writeCube } from '@/core/look/cube';
import { identityOf } from '@/core/look/identity';
import { writeHaldPng, writeHaldTiff } from '@/core/look/hald-file';
import { Problem } from '@/core/problem';
import { chartPicture, readChartPicture } from '@/server/editor-charts/picture';
import { outputPath, readInput, STANDARD, writeOutput } from './files';
import { levelOf } from './look/make';
import { choice, sizeOption } from './values';
import { output, size, verb, writes, type Verb } from './verb';

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

async function writeHald(option: string, path: string): Promise<object> {
  pictureKind(path);
  const level = levelOf(option);
  const look = identityOf(level * level);
  await writeOutput(path, isTiff(path) ? writeHaldTiff(look) : writeHaldPng(look));
  return { level, width: level ** 3, height: level ** 3 };
}

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
    if (!Number.isInteger(id) || id < 0 || id > MOST_NUMBER)
      throw new Problem('usage', `${options.id} is no number of a chart.`, '--id', `Give 0 to ${MOST_NUMBER}.`);
    if (options.camera) {
      const name: ChartName = { size: points, kind: 'camera data', id };
      const { dng, ...about } = cameraChart(name, readDcp(new Uint8Array(readInput(options.camera, 'camera profile'))));
      await writeOutput(path, dng);
      return { ...name, ...about };
    }
    const bits = choice(options.bits, 'bits', ['8', '16'] as const, '16');
    const name: ChartName = { size: points, kind: chartKinds[bits === '8' ? 0 : 1], id };
    pictureKind(path);
    const { bytes, width, height } = await chartPicture(name, isTiff(path) ? 'tiff' : 'png');
    await writeOutput(path, bytes);
    return { ...name, width, height };
  },
});

const read = verb({
  about: 'a chart that an editor exported, as the table of what it did; every check that can refuse it',
  takes: '<picture...>',
  each: true,
  example: 'chart read exported.tif -o editor.cube',
  options: { ...writes, size },
  run: async ({ files: [file = ''], options }) => {
    const path = outputPath(options);
    const wanted = options.size === undefined ? undefined : sizeOption(options.size, MOST_SIZE, LEAST_SIZE);
    const { look, noise, spread, repaired, warnings, residual, validFor } = await readChartPicture(
      readInput(file, 'picture'),
      file,
      wanted,
    );
    await writeOutput(path, writeCube(look));
    return { noise, spread, repaired, warnings, residual, validFor, ...(path === STANDARD ? {} : { written: path }) };
  },
});

export const verbs: Record<string, Verb> = { make, read };
