/** Verbs that make a look of something else: of nothing at all, and of what two cameras saw. */
import { extname } from 'node:path';
import sharp from 'sharp';
import { matchCameras, sharedPatches, tableOfMatch, type MatchPicture } from '@/core/look/camera-match';
import { identityOf } from '@/core/look/identity';
import { Problem } from '@/core/problem';
import { residual } from '@/core/look/residual';
import { sampler } from '@/core/look/sample';
import { outputFor, outputPath, readInput, writeOutput } from '../files';
import { sizeOption } from '../values';
import { size, title, verb, writes } from '../verb';
import { writers } from './write';

const MOST_LEVEL = 16;

/** The level of a Hald image, 2 to 16. */
export const levelOf = (option: string): number => sizeOption(option, MOST_LEVEL, 8);

function writerFor(path: string): (typeof writers)[string] {
  const write = writers[extname(path).toLowerCase()];
  if (write) return write;
  throw new Problem(
    'look-format',
    `Looks are not written as ${extname(path) || 'files without an extension'}.`,
    path,
    'Write .cube, .clf, .png or .tif.',
  );
}

export const identity = verb({
  about: 'the look that changes nothing, as a table or as a Hald image',
  example: 'look identity --hald 8 -o identity.png',
  options: { ...writes, size, hald: { value: 'LEVEL', about: 'a Hald image of that level, 2 to 16' }, title },
  run: async ({ options }) => {
    const path = outputPath(options);
    const write = writerFor(path);
    const isPicture = !/\.(cube|clf)$/i.test(path);
    const level = options.hald ?? (isPicture && !options.size ? '8' : undefined);
    const points = level === undefined ? sizeOption(options.size, 256, 33) : levelOf(level) ** 2;
    if (isPicture && !Number.isInteger(Math.sqrt(points)))
      throw new Problem(
        'hald-size',
        `A table of ${points} points makes no Hald image.`,
        '--size',
        'Choose the square of a whole number, such as 36 or 64, or say --hald.',
      );
    await writeOutput(path, write(identityOf(points, options.title ?? 'Identity')));
    return { size: points };
  },
});

/** Wider than this tells no more of even areas. */
const MATCH_WIDTH = 1500;

async function pictureOf(path: string): Promise<MatchPicture> {
  const bytes = readInput(path, 'picture');
  try {
    const { data, info } = await sharp(bytes, { limitInputPixels: 400e6 })
      .rotate()
      .resize({ width: MATCH_WIDTH, withoutEnlargement: true })
      .toColourspace('srgb')
      .removeAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    return { width: info.width, height: info.height, channels: 3, data: new Uint8Array(data) };
  } catch {
    throw new Problem('picture-unreadable', `${path} is no picture that can be read.`, path, 'Give PNG, TIFF or JPEG.');
  }
}

export const match = verb({
  about: 'a look that makes pictures of one camera look like those of another, from two frames of one scene',
  takes: '<from> <to>',
  example: 'look match alder.tif ondine.tif -o alder-as-ondine.cube',
  options: { ...writes, size, title },
  run: async ({ files: [from = '', to = ''], options }) => {
    const { path } = outputFor(options, from, '.cube');
    const write = writerFor(path);
    const made = matchCameras(sharedPatches(await pictureOf(from), await pictureOf(to)));
    const points = sizeOption(options.size, 129, 33);
    const look = tableOfMatch(made, points, options.title ?? 'Camera match');
    await writeOutput(path, write(look));
    const { before, after } = made;
    const patches = made.patches.map(({ area: _area, ...patch }) => patch);
    return { before, after, patches, residual: residual(made.evaluate, sampler(look)) };
  },
});
