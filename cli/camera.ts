import { writeFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { describe, profileOf, readDcp, writeDcp, type Dcp } from '@/core/camera/dcp';
import { edit as editDcp, merge as mergeDcp, split as splitDcp } from '@/core/camera/edit';
import { renderer, STAGES, type RenderSpace, type Stage } from '@/core/camera/render';
import { anchor as anchorDcp, checkNeutral, whitePoint } from '@/core/camera/white';
import { toInputProfile } from '@/core/icc/convert';
import { Problem } from '@/core/problem';
import { choice, numberOption, readInput, readPoints } from './input';
import type { Verb } from './main';

const load = (path: string | undefined): Dcp => readDcp(new Uint8Array(readInput(path, 'camera profile')));
const usage = (message: string, where: string, remedy: string): Problem => new Problem('usage', message, where, remedy);

/** "r,g,b", above zero. */
export function neutralOption(value: string | undefined): number[] {
  if (!value) throw usage('The neutral is missing.', '--neutral', 'Give three camera values: --neutral r,g,b.');
  return checkNeutral(value.split(',').map((v) => (v.trim() === '' ? NaN : Number(v))));
}
function stagesOption(value: string | undefined): readonly Stage[] {
  if (value === undefined) return STAGES;
  return value
    .split(',')
    .map((s) => s.trim())
    .filter(Boolean)
    .map((s) => choice(s, 'stages', STAGES, 'curve'));
}
const out = (value: string | undefined): string => {
  if (!value) throw usage('The output is missing.', '-o', 'Name it with -o.');
  return value;
};

const info: Verb = async (args) => {
  const { positionals } = parseArgs({ args, allowPositionals: true, options: {} });
  const dcp = load(positionals[0]);
  profileOf(dcp);
  return { byteOrder: dcp.little ? 'little' : 'big', tags: describe(dcp) };
};

const render: Verb = async (args) => {
  const { positionals, values } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      neutral: { type: 'string' },
      points: { type: 'string' },
      stages: { type: 'string' },
      space: { type: 'string' },
    },
  });
  const profile = profileOf(load(positionals[0]));
  const run = renderer(
    profile,
    neutralOption(values.neutral),
    stagesOption(values.stages),
    choice(values.space, 'space', ['prophoto-linear', 'srgb', 'xyz'] as const, 'prophoto-linear') satisfies RenderSpace,
  );
  const points = readPoints(values.points);
  const v = Float64Array.from(points.flat());
  run(v);
  return points.map((_, i) => [v[i * 3], v[i * 3 + 1], v[i * 3 + 2]]);
};

const white: Verb = async (args) => {
  const { positionals, values } = parseArgs({ args, allowPositionals: true, options: { neutral: { type: 'string' } } });
  return whitePoint(profileOf(load(positionals[0])), neutralOption(values.neutral));
};

const anchor: Verb = async (args) => {
  const { positionals, values } = parseArgs({
    args,
    allowPositionals: true,
    options: { neutral: { type: 'string' }, kelvin: { type: 'string' }, output: { type: 'string', short: 'o' } },
  });
  const dcp = load(positionals[0]);
  const neutral = neutralOption(values.neutral);
  if (values.kelvin === undefined)
    throw usage('The temperature is missing.', '--kelvin', 'Give it in kelvin, 2000 to 50000.');
  const made = anchorDcp(dcp, neutral, numberOption(values.kelvin, 'kelvin', 2000, 50000, 5000));
  const bytes = writeDcp(made);
  const profile = profileOf(readDcp(bytes));
  const shown = Float64Array.from(neutral);
  renderer(profile, neutral, [])(shown);
  writeFileSync(out(values.output), bytes);
  return { before: whitePoint(profileOf(dcp), neutral), after: whitePoint(profile, neutral), rendered: [...shown] };
};

const edit: Verb = async (args) => {
  const { positionals, values } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      name: { type: 'string' },
      camera: { type: 'string' },
      copyright: { type: 'string' },
      curve: { type: 'string' },
      drop: { type: 'string', multiple: true },
      output: { type: 'string', short: 'o' },
    },
  });
  const made = editDcp(load(positionals[0]), {
    ...(values.name !== undefined ? { name: values.name } : {}),
    ...(values.camera !== undefined ? { camera: values.camera } : {}),
    ...(values.copyright !== undefined ? { copyright: values.copyright } : {}),
    curve: choice(values.curve, 'curve', ['linear', 'editor', 'keep'] as const, 'keep'),
    drop: (values.drop ?? [])
      .flatMap((d) => d.split(','))
      .map((d) => choice(d, 'drop', ['look', 'hue-sat'] as const, 'look')),
  });
  writeFileSync(out(values.output), writeDcp(made));
  return { written: values.output, tags: describe(made) };
};

const split: Verb = async (args) => {
  const { positionals, values } = parseArgs({
    args,
    allowPositionals: true,
    options: { light: { type: 'string' }, output: { type: 'string', short: 'o' } },
  });
  const made = splitDcp(load(positionals[0]), choice(values.light, 'light', ['1', '2'] as const, '1') === '1' ? 0 : 1);
  writeFileSync(out(values.output), writeDcp(made));
  return { written: values.output, tags: describe(made) };
};

const merge: Verb = async (args) => {
  const { positionals, values } = parseArgs({
    args,
    allowPositionals: true,
    options: { output: { type: 'string', short: 'o' } },
  });
  const made = mergeDcp(load(positionals[0]), load(positionals[1]));
  writeFileSync(out(values.output), writeDcp(made));
  return { written: values.output, tags: describe(made) };
};

/** As an ICC input profile for one light, with the residual. */
const convert: Verb = async (args) => {
  const { positionals, values } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      kelvin: { type: 'string' },
      size: { type: 'string' },
      title: { type: 'string' },
      output: { type: 'string', short: 'o' },
    },
  });
  const profile = profileOf(load(positionals[0]));
  const kelvin = numberOption(values.kelvin, 'kelvin', 2000, 50000, 5000);
  const made = await toInputProfile(profile, kelvin, {
    title: values.title ?? `Camera at ${kelvin} K`,
    created: new Date(),
    grid: numberOption(values.size, 'size', 2, 129, 33),
  });
  writeFileSync(out(values.output), made.bytes);
  return { residual: made.residual };
};

export const verbs: Record<string, Verb> = { info, render, white, anchor, edit, split, merge, convert };
