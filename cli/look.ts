import { writeFileSync } from 'node:fs';
import { extname } from 'node:path';
import { parseArgs } from 'node:util';
import { toAbstract, toDeviceLink } from '@/core/icc/convert';
import { evaluateIcc, readAnyLook } from '@/core/icc/look';
import { isIcc } from '@/core/icc/header';
import {
  applyAny,
  assumedEncoding,
  isSame,
  pointsIn,
  readProgram,
  resized,
  residual,
  writeClf,
  writeCube,
  sampler,
  type Evaluate,
  type Interpolation,
  type Look,
  type Program,
} from '@/core/look';
import { blend, compose, invertLook } from '@/core/look/algebra';
import { inspect as inspectLook } from '@/core/look/inspect';
import { encodingNames, encodingOf } from '@/core/look/encoding';
import { haldLevel } from '@/core/look/hald';
import { writeHaldPng, writeHaldTiff } from '@/core/look/hald-file';
import { fromRows } from '@/core/look/look';
import { rangeOfProgram } from '@/core/look/program';
import { must } from '@/core/must';
import { Problem } from '@/core/problem';
import { choice, numberOption, readInput, readPoints } from './input';
import type { Verb } from './main';

const interpolations = ['tetrahedral', 'trilinear'] as const;
const bytesOf = (path: string | undefined): Uint8Array => new Uint8Array(readInput(path, 'look'));
const load = async (path: string | undefined): Promise<Program> => readAnyLook(bytesOf(path));
/** The interpolation that was asked for; without one, the file's own holds. */
const asked = (value: string | undefined): Interpolation | undefined =>
  value === undefined ? undefined : choice(value, 'interpolation', interpolations, 'tetrahedral');
const encodingOption = (value: string | undefined, name: string) =>
  value === undefined ? null : encodingOf(choice(value, name, encodingNames, 'srgb'));
/** An entry of a row of numbers within its bounds; 0 beyond them. */
const at = (row: ArrayLike<number>, i: number): number => row[i] ?? 0;
const factor = (value: string | undefined): number => numberOption(value, 'strength', 0, 400, 100) / 100;

const info: Verb = async (args) => {
  const { positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { input: { type: 'string' }, output: { type: 'string' } },
  });
  const program = await load(positionals[0]);
  return {
    format: program.format,
    kind: program.kind,
    size: program.kind === 'icc' ? null : program.size,
    title: program.title,
    domain: program.domain,
    range: rangeOfProgram(program),
    encoding: program.encoding ?? assumedEncoding,
    ...(program.nodes.length ? { nodes: program.nodes } : {}),
    warnings: program.warnings,
  };
};

const evaluate: Verb = async (args) => {
  const { positionals, values } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      points: { type: 'string' },
      interpolation: { type: 'string' },
      strength: { type: 'string' },
      input: { type: 'string' },
      output: { type: 'string' },
    },
  });
  const bytes = bytesOf(positionals[0]);
  const points = readPoints(values.points);
  const s = factor(values.strength);
  const interpolation = asked(values.interpolation);
  const into = encodingOption(values.input, 'input');
  const out = encodingOption(values.output, 'output');
  // points given in another encoding than the look's are brought into it, and results out of it
  const v = Float64Array.from(points.flat());
  if (into) for (let i = 0; i < v.length; i += 3) into.toSrgb(v, i);
  let results: Float64Array;
  if (isIcc(bytes)) results = await evaluateIcc(bytes, v, s);
  else {
    const evaluate = readProgram(bytes).evaluate(interpolation, s);
    results = new Float64Array(v.length);
    for (let i = 0; i < v.length; i += 3) evaluate(at(v, i), at(v, i + 1), at(v, i + 2), results, i);
  }
  if (out) for (let i = 0; i < results.length; i += 3) out.fromSrgb(results, i);
  return points.map((_, i) => [...results.slice(i * 3, i * 3 + 3)]);
};

const apply: Verb = async (args) => {
  const { positionals, values } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      output: { type: 'string', short: 'o' },
      interpolation: { type: 'string' },
      strength: { type: 'string' },
    },
  });
  const program = await load(positionals[0]);
  const source = readInput(positionals[1], 'picture');
  if (!values.output) throw new Problem('usage', 'The output is missing.', '-o', 'Name it with -o.');
  const { applyToPicture } = await import('./picture');
  const interpolation = asked(values.interpolation);
  const s = factor(values.strength);
  await applyToPicture(source, must(positionals[1]), values.output, (data, channels, top) => {
    if (program.look)
      applyAny(program.look, data, channels, top, interpolation ?? program.look.interpolation ?? 'tetrahedral', s);
    else applyFunction(program, data, channels, top, interpolation, s);
  });
  return { written: values.output };
};

/** A chain over every pixel; what was computed for the last pixel serves the next one like it. */
function applyFunction(
  program: Program,
  data: Uint8Array | Uint16Array,
  channels: number,
  top: number,
  interpolation: Interpolation | undefined,
  s: number,
): void {
  const evaluate = program.evaluate(interpolation, s);
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

const writers: Record<string, (look: Look) => string | Uint8Array> = {
  '.cube': writeCube,
  '.clf': (l) => writeClf(l, 'look'),
  '.png': writeHaldPng,
  '.tif': writeHaldTiff,
  '.tiff': writeHaldTiff,
};

const convert: Verb = async (args) => {
  const { positionals, values } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      output: { type: 'string', short: 'o' },
      size: { type: 'string' },
      title: { type: 'string' },
      class: { type: 'string' },
    },
  });
  const program = await load(positionals[0]);
  const { output } = values;
  if (!output) throw new Problem('usage', 'The output is missing.', '-o', 'Name it with -o.');
  const kind = extname(output).toLowerCase();
  const title = values.title ?? program.title;
  if (kind === '.icc' || kind === '.icm') {
    const grid = numberOption(values.size, 'size', 2, 129, 33);
    const form = choice(values.class, 'class', ['link', 'abstract'] as const, 'link');
    return convertToIcc(program, output, form, title || 'Look', grid);
  }
  const write = writers[kind];
  if (!write)
    throw new Problem(
      'look-format',
      `Looks are not written as ${kind || 'files without an extension'}.`,
      output,
      'Write .cube, .clf, .png, .tif or .icc.',
    );
  const hald = kind === '.png' || kind.startsWith('.tif');
  const size = tableSize(values.size, program, hald);
  const data = writtenTable(program, size, hald, title, write);
  writeFileSync(output, data);
  const back = readProgram(typeof data === 'string' ? new TextEncoder().encode(data) : data);
  return { residual: residual(program.evaluate(), back.evaluate(), pointsIn(program.domain)) };
};

async function convertToIcc(
  program: Program,
  output: string,
  form: 'link' | 'abstract',
  title: string,
  grid: number,
): Promise<object> {
  const make = form === 'link' ? toDeviceLink : toAbstract;
  const made = await make(program.evaluate(), { title, created: new Date(), grid });
  writeFileSync(output, made.bytes);
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
  const size = numberOption(option, 'size', 2, most, usualSize(program, hald));
  if (!Number.isInteger(size))
    throw new Problem('usage', '--size must be a whole number.', '--size', 'Correct the option.');
  const root = Math.round(Math.sqrt(size));
  if (hald && (root * root !== size || !haldLevel(root ** 3, root ** 3)))
    throw new Problem(
      'hald-size',
      `A table of ${size} points makes no Hald image.`,
      '--size',
      'Choose the square of a whole number from 2 to 16: 4, 9, 16, 25, 36, 49, 64, … 256.',
    );
  return size;
}

/** In a function of its own: a table of 256 points has 200 MB, which must be gone before the file is read back. */
function writtenTable(
  program: Program,
  size: number,
  hald: boolean,
  title: string,
  write: (look: Look) => string | Uint8Array,
): string | Uint8Array {
  return write({ ...tableFor(program, size, hald), title });
}

/** The program as one table. A Hald image has no domain of its own, so its table is over 0…1. */
function tableFor(program: Program, size: number, hald: boolean): Look {
  const isUnit = program.domain.min.every((v) => v === 0) && program.domain.max.every((v) => v === 1);
  const domain = hald && program.look && !isUnit ? unit : program.domain;
  if (program.look && domain === program.domain && program.kind !== 'icc')
    return resized(program.look, size, program.kind === '1d' && !hald);
  const evaluate = program.evaluate();
  return fromRows(
    size,
    program.title,
    (row, n) => {
      for (let i = 0; i < n; i += 3) evaluate(at(row, i), at(row, i + 1), at(row, i + 2), row, i);
    },
    domain,
  );
}

const unit = { min: [0, 0, 0], max: [1, 1, 1] };

const same: Verb = async (args) => {
  const { positionals, values } = parseArgs({ args, allowPositionals: true, options: { points: { type: 'string' } } });
  const program = await load(positionals[0]);
  const b = await load(positionals[1]);
  const points = values.points ? Float64Array.from(readPoints(values.points).flat()) : pointsIn(program.domain);
  const r = residual(program.evaluate(), b.evaluate(), points);
  return { ...r, same: isSame(r) };
};

const inspect: Verb = async (args) => {
  const { positionals } = parseArgs({ args, allowPositionals: true, options: {} });
  const program = await load(positionals[0]);
  const { verdict, findings, figures } = inspectLook(program.evaluate(), program.look?.table ?? null);
  return { verdict, findings, figures };
};

/** Two looks as one table: one after the other, or mixed. */
const combined =
  (name: string, make: (a: Evaluate, b: Evaluate, share: number) => Evaluate): Verb =>
  async (args) => {
    const { positionals, values } = parseArgs({
      args,
      allowPositionals: true,
      options: {
        output: { type: 'string', short: 'o' },
        size: { type: 'string' },
        title: { type: 'string' },
        share: { type: 'string' },
      },
    });
    const program = await load(positionals[0]);
    const b = await load(positionals[1]);
    const evaluate = make(program.evaluate(), b.evaluate(), numberOption(values.share, 'share', 0, 1, 0.5));
    return written(
      evaluate,
      values.output,
      numberOption(values.size, 'size', 2, 129, 33),
      values.title ?? `${program.title || 'first'} ${name} ${b.title || 'second'}`,
    );
  };

/** A function as a table of 0…1, in a .cube or .clf file, with the error of its table. */
function written(evaluate: Evaluate, output: string | undefined, size: number, title: string): { residual: unknown } {
  if (!output) throw new Problem('usage', 'The output is missing.', '-o', 'Name it with -o.');
  const kind = extname(output).toLowerCase();
  const write = writers[kind];
  if (!Number.isInteger(size))
    throw new Problem('usage', '--size must be a whole number.', '--size', 'Correct the option.');
  if (!write || (kind !== '.cube' && kind !== '.clf'))
    throw new Problem(
      'look-format',
      `A table is not written as ${kind || 'a file without an extension'} here.`,
      output,
      'Write .cube or .clf.',
    );
  const data = write(
    fromRows(size, title, (row, n) => {
      for (let i = 0; i < n; i += 3) evaluate(at(row, i), at(row, i + 1), at(row, i + 2), row, i);
    }),
  );
  writeFileSync(output, data);
  return {
    residual: residual(
      evaluate,
      readProgram(typeof data === 'string' ? new TextEncoder().encode(data) : data).evaluate(),
      pointsIn(unit),
    ),
  };
}

const invert: Verb = async (args) => {
  const { positionals, values } = parseArgs({
    args,
    allowPositionals: true,
    options: { output: { type: 'string', short: 'o' }, size: { type: 'string' }, title: { type: 'string' } },
  });
  const program = await load(positionals[0]);
  const inverse = invertLook(
    program.evaluate(),
    values.title ?? `${program.title || 'look'}, undone`,
    numberOption(values.size, 'size', 2, 65, 33),
  );
  const { residual: table } = written(sampler(inverse.look), values.output, inverse.look.size, inverse.look.title);
  return { residual: inverse.residual, unreached: inverse.unreached, table };
};

export const verbs: Record<string, Verb> = {
  info,
  eval: evaluate,
  apply,
  convert,
  inspect,
  same,
  compose: combined('then', (a, b) => compose(a, b)),
  blend: combined('and', blend),
  invert,
};
