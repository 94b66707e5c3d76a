/** Verbs that write: a picture through a look, and a look in another size or format. */
import { extname } from 'node:path';
import { toAbstract, toDeviceLink } from '@/core/icc/convert';
import { applyAny, pointsIn, readProgram, resized, residual, writeClf, writeCube } from '@/core/look';
import type { Interpolation, Look, Program } from '@/core/look';
import { haldLevel } from '@/core/look/hald';
import { writeHaldPng, writeHaldTiff } from '@/core/look/hald-file';
import { fromRows } from '@/core/look/look';
import { Problem } from '@/core/problem';
import { outputFor, outputPath, readInput, STANDARD, writeOutput } from '../files';
import { choice, sizeOption } from '../values';
import { size, strength, title, verb, writes } from '../verb';
import { at, interpolationOption, interpolations, load, strengthOption } from './load';

export const apply = verb({
  about: 'a PNG, TIFF or JPEG through the look, to PNG or TIFF',
  takes: '<look> <picture>',
  example: 'look apply amber.cube portrait.tif -o portrait-amber.tif',
  options: {
    ...writes,
    interpolation: { value: 'HOW', about: 'between the points of a table', words: interpolations },
    strength,
  },
  run: async ({ files: [file, picture], options }) => {
    const output = outputPath(options);
    if (output === STANDARD)
      throw new Problem('usage', 'A picture is written to a file.', '-o', 'Name a .png or .tif file.');
    const program = await load(file);
    const source = readInput(picture, 'picture');
    const { applyToPicture } = await import('@/server/pictures/stored');
    const interpolation = interpolationOption(options.interpolation);
    const factor = strengthOption(options.strength);
    await applyToPicture(source, picture ?? '', output, (data, channels, top) => {
      if (program.look)
        applyAny(
          program.look,
          data,
          channels,
          top,
          interpolation ?? program.look.interpolation ?? 'tetrahedral',
          factor,
        );
      else applyFunction(program, data, channels, top, interpolation, factor);
    });
    return { written: output };
  },
});

/** A chain over every pixel; what was computed for the last pixel serves the next one like it. */
function applyFunction(
  program: Program,
  data: Uint8Array | Uint16Array,
  channels: number,
  top: number,
  interpolation: Interpolation | undefined,
  factor: number,
): void {
  const evaluate = program.evaluate(interpolation, factor);
  const out = new Float64Array(3);
  let r = -1;
  let g = -1;
  let b = -1;
  for (let i = 0; i < data.length; i += channels) {
    if (data[i] !== r || data[i + 1] !== g || data[i + 2] !== b) {
      r = at(data, i);
      g = at(data, i + 1);
      b = at(data, i + 2);
      evaluate(r / top, g / top, b / top, out, 0);
    }
    for (let c = 0; c < 3; c++) data[i + c] = Math.floor(Math.min(1, Math.max(0, at(out, c))) * top + 0.5);
  }
}

export const writers: Record<string, (look: Look) => string | Uint8Array> = {
  '.cube': writeCube,
  '.clf': (look) => writeClf(look, 'look'),
  '.png': writeHaldPng,
  '.tif': writeHaldTiff,
  '.tiff': writeHaldTiff,
};
const isHaldKind = (kind: string): boolean => kind === '.png' || kind.startsWith('.tif');

export const convert = verb({
  about: 'another size or format, with the residual; PNG and TIFF are Hald images of 16 bits',
  takes: '<look...>',
  each: true,
  example: "look convert 'house/*.cube' --format clf -o clf/",
  options: {
    output: { value: 'FILE', short: 'o', about: 'a file, a folder for several, or - with --format' },
    force: writes.force,
    format: { value: 'KIND', about: 'for a folder or -', words: ['cube', 'clf', 'png', 'tif', 'icc'] },
    size,
    title,
    class: { value: 'CLASS', about: 'of an ICC profile', words: ['link', 'abstract'] },
  },
  run: async ({ files: [file = ''], options }) => {
    const { path, kind } = outputFor(options, file);
    const isIccKind = kind === '.icc' || kind === '.icm';
    const write = writers[kind];
    if (!write && !isIccKind)
      throw new Problem(
        'look-format',
        `Looks are not written as ${kind || 'files without an extension'}.`,
        path,
        'Write .cube, .clf, .png, .tif or .icc.',
      );
    const program = await load(file);
    const name = options.title ?? program.title;
    if (!write) {
      const form = choice(options.class, 'class', ['link', 'abstract'] as const, 'link');
      return convertToIcc(program, path, form, name || 'Look', sizeOption(options.size, 129, 33));
    }
    const hald = isHaldKind(kind);
    const data = writtenTable(program, tableSize(options.size, program, hald), hald, name, write);
    await writeOutput(path, data);
    return { residual: residual(program.evaluate(), readBack(data).evaluate(), pointsIn(program.domain)) };
  },
});

export const readBack = (data: string | Uint8Array): Program =>
  readProgram(typeof data === 'string' ? new TextEncoder().encode(data) : data);

async function convertToIcc(
  program: Program,
  output: string,
  form: 'link' | 'abstract',
  name: string,
  grid: number,
): Promise<object> {
  const make = form === 'link' ? toDeviceLink : toAbstract;
  const made = await make(program.evaluate(), { title: name, created: new Date(), grid });
  await writeOutput(output, made.bytes);
  return { residual: made.residual };
}

/** Points an axis without --size: 64 for a Hald image, the program's own where it has one of the kind, else 33. */
function usualSize(program: Program, hald: boolean): number {
  if (hald) return 64;
  return program.kind === 'icc' || !program.size ? 33 : program.size;
}

/** Points an axis; a Hald image has a whole number's square of them. */
function tableSize(option: string | undefined, program: Program, hald: boolean): number {
  const most = program.kind === '1d' && !hald ? 65536 : 256;
  const chosen = sizeOption(option, most, usualSize(program, hald));
  const root = Math.round(Math.sqrt(chosen));
  if (hald && (root * root !== chosen || !haldLevel(root ** 3, root ** 3)))
    throw new Problem(
      'hald-size',
      `A table of ${chosen} points makes no Hald image.`,
      '--size',
      'Choose the square of a whole number from 2 to 16: 4, 9, 16, 25, 36, 49, 64, … 256.',
    );
  return chosen;
}

/** In a function of its own: a table of 256 points has 200 MB, which must be gone before the file is read back. */
function writtenTable(
  program: Program,
  points: number,
  hald: boolean,
  name: string,
  write: (look: Look) => string | Uint8Array,
): string | Uint8Array {
  return write({ ...tableFor(program, points, hald), title: name });
}

/** The program as one table. A Hald image has no domain of its own, so its table is over 0…1. */
function tableFor(program: Program, points: number, hald: boolean): Look {
  const isUnit = program.domain.min.every((v) => v === 0) && program.domain.max.every((v) => v === 1);
  const domain = hald && program.look && !isUnit ? unit : program.domain;
  if (program.look && domain === program.domain && program.kind !== 'icc')
    return resized(program.look, points, program.kind === '1d' && !hald);
  const evaluate = program.evaluate();
  return fromRows(
    points,
    program.title,
    (row, points) => {
      for (let i = 0; i < points; i += 3) evaluate(at(row, i), at(row, i + 1), at(row, i + 2), row, i);
    },
    domain,
  );
}

export const unit = { min: [0, 0, 0], max: [1, 1, 1] };

/** The writer of a table for a file of this name, where one table is all that is written. */
export function tableWriter(output: string, kind = extname(output).toLowerCase()) {
  const write = writers[kind];
  if (!write || isHaldKind(kind))
    throw new Problem(
      'look-format',
      `A table is not written as ${kind || 'a file without an extension'} here.`,
      output,
      'Write .cube or .clf.',
    );
  return write;
}
