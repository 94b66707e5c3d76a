import { writeFileSync } from 'node:fs';
import { extname } from 'node:path';
import { parseArgs } from 'node:util';
import { applyAny, assumedEncoding, isSame, pointsIn, rangeOf, readCube, resample, residual, sampler, writeClf, writeCube, type Look } from '@/core/look';
import { Problem } from '@/core/problem';
import { choice, numberOption, readInput, readPoints } from './input';
import type { Verb } from './main';

const interpolations = ['tetrahedral', 'trilinear'] as const;
const load = (path: string | undefined): Look => readCube(readInput(path, 'look'));

const info: Verb = async (args) => {
  const { positionals } = parseArgs({ args, allowPositionals: true, options: {} }), look = load(positionals[0]);
  return { format: look.format, kind: look.kind, size: look.size, title: look.title, domain: look.domain, range: rangeOf(look), encoding: assumedEncoding, warnings: look.warnings };
};

const evaluate: Verb = async (args) => {
  const { positionals, values } = parseArgs({ args, allowPositionals: true, options: { points: { type: 'string' }, interpolation: { type: 'string' }, strength: { type: 'string' } } });
  const look = load(positionals[0]), f = sampler(look, choice(values.interpolation, 'interpolation', interpolations, 'tetrahedral'), numberOption(values.strength, 'strength', 0, 400, 100) / 100), v = new Float64Array(3);
  return readPoints(values.points).map((p) => { f(p[0]!, p[1]!, p[2]!, v, 0); return [...v]; });
};

const apply: Verb = async (args) => {
  const { positionals, values } = parseArgs({ args, allowPositionals: true, options: { output: { type: 'string', short: 'o' }, interpolation: { type: 'string' }, strength: { type: 'string' } } });
  const look = load(positionals[0]), source = readInput(positionals[1], 'picture');
  if (!values.output) throw new Problem('usage', 'The output is missing.', '-o', 'Name it with -o.');
  const { applyToPicture } = await import('./picture');
  await applyToPicture(source, positionals[1]!, values.output, (data, channels, top) => applyAny(look, data, channels, top, choice(values.interpolation, 'interpolation', interpolations, 'tetrahedral'), numberOption(values.strength, 'strength', 0, 400, 100) / 100));
  return { written: values.output };
};

const convert: Verb = async (args) => {
  const { positionals, values } = parseArgs({ args, allowPositionals: true, options: { output: { type: 'string', short: 'o' }, size: { type: 'string' }, title: { type: 'string' } } });
  const look = load(positionals[0]);
  if (!values.output) throw new Problem('usage', 'The output is missing.', '-o', 'Name it with -o.');
  const kind = extname(values.output).toLowerCase();
  if (kind !== '.cube' && kind !== '.clf') throw new Problem('look-format', `Looks are not written as ${kind || 'files without an extension'} yet.`, values.output, 'Write .cube or .clf.');
  const limit = look.kind === '1d' ? 65536 : 256, size = numberOption(values.size, 'size', 2, limit, look.size);
  if (!Number.isInteger(size)) throw new Problem('usage', '--size must be a whole number.', '--size', 'Correct the option.');
  const { look: out, residual: r } = resample(look, size, true);
  out.title = values.title ?? look.title;
  writeFileSync(values.output, kind === '.cube' ? writeCube(out) : writeClf(out, 'look'));
  return { residual: r };
};

const same: Verb = async (args) => {
  const { positionals, values } = parseArgs({ args, allowPositionals: true, options: { points: { type: 'string' } } });
  const a = load(positionals[0]), b = load(positionals[1]);
  const points = values.points ? Float64Array.from(readPoints(values.points).flat()) : pointsIn(a.domain);
  const r = residual(sampler(a), sampler(b), points);
  return { ...r, same: isSame(r) };
};

export const verbs: Record<string, Verb> = { info, eval: evaluate, apply, convert, same };
