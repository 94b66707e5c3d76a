/** The verbs of lenses: calibrations of lens databases, and those that a frame carries itself. */
import { calibrations, type Calibrations } from '@/core/lens/calibrated';
import { lensName } from '@/core/lens/name';
import { convertDatabase, toldSample } from '@/core/lens/convert';
import { correctionOf, type Correction } from '@/core/lens/correction';
import { fitted } from '@/core/lens/fit';
import { cameraOf, matches, toldMatch } from '@/core/lens/match';
import {
  backThroughWarps,
  gainOf,
  readOpcodes,
  throughWarps,
  type Opcodes,
  type Point,
  type Size,
} from '@/core/lens/opcodes';
import { channels, directions, gainAt, throughLens, type Direction } from '@/core/lens/points';
import { lensDifference } from '@/core/lens/records';
import { cropOf } from '@/core/lens/sensor';
import { Problem } from '@/core/problem';
import { outputPath, readInput, writeOutput } from './files';
import { choice, numberOption, readNumbers, wholeOption } from './values';
import { verb, writes, type Verb } from './verb';

const bytesOf = (path: string | undefined): Uint8Array => new Uint8Array(readInput(path, 'lens database'));
const usage = (message: string, where: string, remedy: string): Problem => new Problem('usage', message, where, remedy);

// --- options

const camera = { value: 'CAMERA', about: 'as the photo says it' } as const;
const lens = { value: 'LENS', about: 'as the photo says it' } as const;
const focal = { value: 'MM', about: 'focal length' } as const;
const aperture = { value: 'F', about: 'f-number' } as const;
const distance = { value: 'M', about: 'in metres; far away without' } as const;
const width = { value: 'PIXELS', about: 'of the picture' } as const;
const height = { value: 'PIXELS', about: 'of the picture' } as const;
const picture = { width, height } as const;
const points = { value: 'FILE', about: 'a JSON array of [x, y] in pixels, centers at whole numbers' } as const;
const opcodes = { value: 'FILE', about: 'the raw bytes of a DNG OpcodeList3, in place of a database' } as const;
const taken = { camera, lens, focal, aperture, distance } as const;

const MOST_PIXELS = 100_000;
const NONE = -1;

/** A side of the picture, which must be said. */
function sideOf(value: string | undefined, name: string): number {
  if (value === undefined) throw usage(`--${name} is missing.`, `--${name}`, 'Give the size of the picture in pixels.');
  return wholeOption(value, name, 1, MOST_PIXELS, 1);
}

const sizeOf = (options: { width: string | undefined; height: string | undefined }): Size => ({
  width: sideOf(options.width, 'width'),
  height: sideOf(options.height, 'height'),
});

/** The list of opcodes that stands in the place of a database; null where there is none. */
function opcodesIn(path: string | undefined, database: string | undefined): Opcodes | null {
  if (path === undefined) return null;
  if (database !== undefined)
    throw usage('A database and a list of opcodes are named.', '--opcodes', 'Name one of the two.');
  return readOpcodes(new Uint8Array(readInput(path, 'list of opcodes')));
}

function pointsIn(path: string | undefined): Point[] {
  return readNumbers(path).map((row): Point => {
    const [x, y, ...more] = row;
    if (x === undefined || y === undefined || more.length)
      throw new Problem(
        'points-json',
        'The points are no pairs.',
        path ?? '',
        'Give a JSON array of [x, y] in pixels.',
      );
    return [x, y];
  });
}

/** Null where it was not said. */
function optional(value: string | undefined, name: string, least: number, most: number): number | null {
  const number = numberOption(value, name, least, most, NONE);
  return number === NONE ? null : number;
}

interface Taken {
  camera: string | undefined;
  lens: string | undefined;
  focal: string | undefined;
  aperture: string | undefined;
  distance: string | undefined;
}

const settingsOf = (options: Taken) => ({
  focal: optional(options.focal, 'focal', 0.1, 10_000),
  aperture: optional(options.aperture, 'aperture', 0.1, 1000),
  distance: optional(options.distance, 'distance', 0.001, 1e9),
});

/** The lens of that very name, or of that other name; one that is only like it is never taken unsaid. */
function lensOf(database: Calibrations, name: string | undefined, body: string) {
  if (!name) throw usage('The lens is missing.', '--lens', 'Name it as the photo does: --lens L.');
  const found = matches(database, { camera: body, lens: name, focal: null });
  const sure = found.find(({ by }) => by === 'name');
  if (sure) return sure.calibrated;
  const like = found[0] ? ` It has the ${lensName(found[0].calibrated)}, which is like it.` : '';
  throw new Problem(
    'lens-unknown',
    `The database measures no “${name}”.${like}`,
    '--lens',
    'Ask lens match for its name.',
  );
}

/** What can be corrected of a photo that was taken so; what is not asked for may stay uncorrected. */
function correctionFor(path: string | undefined, options: Taken, asked: string): Correction {
  const database = calibrations(bytesOf(path));
  if (!options.camera) throw usage('The camera is missing.', '--camera', 'Name it as the photo does: --camera C.');
  const known = cameraOf(database, options.camera);
  const calibrated = lensOf(database, options.lens, options.camera);
  const crop = known ? cropOf(known.width, known.height) : null;
  const found = correctionOf(calibrated, { ...settingsOf(options), crop });
  const refuse = (why: string): Problem =>
    new Problem(
      'lens-not-corrected',
      `The ${lensName(calibrated)} cannot be corrected: ${why}.`,
      path ?? '',
      'Take a calibration that serves this camera and these settings.',
    );
  if (found.is === 'unknown') throw refuse(found.why);
  if (found.done.includes(asked)) return found.correction;
  throw refuse(found.left.find((one) => one.startsWith(asked)) ?? `the database does not measure its ${asked}`);
}

// --- verbs

const info = verb({
  about: 'what a lens database holds: cameras, lenses, what of them was measured',
  takes: '<database...>',
  each: true,
  example: 'lens info bureau.xml',
  run: async ({ files: [file] }) => {
    const { release, cameras, lenses } = calibrations(bytesOf(file));
    return {
      release,
      cameras: cameras.map((one) => ({ ...one, crop: cropOf(one.width, one.height) })),
      lenses: lenses.map((one) => ({
        lens: lensName(one),
        mount: one.mount,
        crop: one.crop,
        focal: one.focal,
        aliases: one.aliases,
        quantities: one.quantities,
        samples: one.series.reduce((sum, { samples }) => sum + samples.length, 0),
      })),
    };
  },
});

const match = verb({
  about: 'the lenses that a photo may have been taken with, the surest first, each with its reason',
  takes: '<database>',
  example: 'lens match bureau.xml --camera "Perrin Alder" --lens "24-70 mm f/4" --focal 35',
  options: { camera, lens, focal },
  run: async ({ files: [file], options }) => {
    if (!options.lens) throw usage('The lens is missing.', '--lens', 'Name it as the photo does: --lens L.');
    const sought = {
      camera: options.camera ?? '',
      lens: options.lens,
      focal: optional(options.focal, 'focal', 0.1, 10_000),
    };
    return matches(calibrations(bytesOf(file)), sought).map(toldMatch);
  },
});

const noPoint = ([x, y]: Point): Problem =>
  new Problem('lens-no-point', `Nothing belongs to the point ${x}, ${y}.`, '--points', 'Leave it out.');

/** Points through the warps that a frame carries. */
function throughOpcodes({ warps }: Opcodes, plane: number, size: Size, direction: Direction, all: readonly Point[]) {
  if (!warps.length)
    throw new Problem(
      'opcodes-no-warp',
      'There is no WarpRectilinear in this list.',
      '--opcodes',
      'Take another frame.',
    );
  return all.map((point) => {
    const there = (direction === 'to-distorted' ? throughWarps : backThroughWarps)(warps, size, plane, point);
    if (!there) throw noPoint(point);
    return there;
  });
}

const map = verb({
  about: 'points of a photo as they were without its lens, or the way back',
  takes: '[database]',
  example:
    'lens map bureau.xml --camera "Perrin Alder" --lens "Perrin 24-70 mm f/4" --focal 24 --width 6000 --height 4000 --points points.json',
  options: {
    ...taken,
    ...picture,
    points,
    direction: { value: 'DIRECTION', about: 'to-ideal without; of opcodes, to-distorted', words: directions },
    channel: { value: 'COLOR', about: 'green without', words: channels },
    opcodes,
    plane: { value: 'N', about: 'of the opcodes, from 0' },
  },
  run: async ({ files: [file], options }) => {
    const size = sizeOf(options);
    const list = opcodesIn(options.opcodes, file);
    if (list) {
      const plane = wholeOption(options.plane, 'plane', 0, 3, 0);
      const direction = choice(options.direction, 'direction', directions, 'to-distorted');
      return throughOpcodes(list, plane, size, direction, pointsIn(options.points));
    }
    const direction = choice(options.direction, 'direction', directions, 'to-ideal');
    const channel = choice(options.channel, 'channel', channels, 'green');
    const correction = correctionFor(file, options, 'distortion');
    return pointsIn(options.points).map((point) => {
      const there = throughLens(correction[channel], size, direction, point);
      if (!there) throw noPoint(point);
      return there;
    });
  },
});

const vignetting = verb({
  about: 'what the light at points of a photo is multiplied by',
  takes: '[database]',
  example:
    'lens vignetting bureau.xml --camera "Perrin Alder" --lens "Perrin 50 mm f/2" --focal 50 --aperture 2 --width 6000 --height 4000 --points points.json',
  options: { ...taken, ...picture, points, opcodes },
  run: async ({ files: [file], options }) => {
    const size = sizeOf(options);
    const list = opcodesIn(options.opcodes, file);
    if (!list) {
      const correction = correctionFor(file, options, 'vignetting');
      return pointsIn(options.points).map((point) => gainAt(correction, size, point));
    }
    const { vignettes } = list;
    if (!vignettes.length)
      throw new Problem(
        'opcodes-no-vignette',
        'There is no FixVignetteRadial in this list.',
        '--opcodes',
        'Take another frame.',
      );
    return pointsIn(options.points).map((point) => gainOf(vignettes, size, point));
  },
});

const convert = verb({
  about: 'a database whose distortions are said by another model, with what is left of each in pixels',
  takes: '<database>',
  example: 'lens convert bureau.xml --to division --width 6000 --height 4000 -o bureau-division.xml',
  options: {
    ...writes,
    ...picture,
    to: { value: 'MODEL', about: 'of the result', words: fitted },
    direction: { value: 'DIRECTION', about: 'of the result; as it is without', words: directions },
  },
  run: async ({ files: [file], options }) => {
    const path = outputPath(options);
    const { width, height } = sizeOf(options);
    if (options.to === undefined) throw usage('The model is missing.', '--to', `Say one of ${fitted.join(', ')}.`);
    const to = choice(options.to, 'to', fitted, 'odd3');
    const direction = options.direction ? choice(options.direction, 'direction', directions, 'to-distorted') : null;
    const { bytes, samples } = convertDatabase(bytesOf(file), to, direction);
    await writeOutput(path, bytes);
    return samples.map((sample) => toldSample(sample, Math.hypot(width, height) / 2));
  },
});

const diff = verb({
  about: 'two releases of a database: lenses added, removed, and changed by how much',
  takes: '<older> <newer>',
  example: 'lens diff bureau-2026-04.xml bureau-2026-10.xml --width 6000 --height 4000',
  options: picture,
  run: async ({ files, options }) => {
    const { width, height } = sizeOf(options);
    const [older, newer, ...more] = files;
    if (!older || !newer || more.length) throw usage('Two databases are compared.', 'command line', 'Name two files.');
    const { added, changed, gone, same } = lensDifference(bytesOf(older), bytesOf(newer));
    const lenses = <T extends { what: string }>(list: T[]): T[] => list.filter(({ what }) => what === 'lens');
    return {
      added: lenses(added).map(({ name }) => name),
      removed: lenses(gone).map(({ name }) => name),
      changed: lenses(changed).map(({ name, moved }) => ({
        lens: name,
        maxPixels: moved && (moved.most * Math.hypot(width, height)) / 2,
        maxEv: moved && moved.light,
      })),
      same,
    };
  },
});

export const verbs: Record<string, Verb> = { info, match, map, vignetting, convert, diff };
