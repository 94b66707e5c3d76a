/** The verbs of camera profiles. */
import { describe, profileOf, readDcp, writeDcp, type Dcp } from '@/core/camera/dcp';
import { edit as editDcp, merge as mergeDcp, split as splitDcp } from '@/core/camera/edit';
import { renderer, STAGES, type RenderSpace, type Stage } from '@/core/camera/render';
import { checkProfile } from '@/core/camera/soundness';
import { anchor as anchorDcp, checkNeutral, whitePoint } from '@/core/camera/white';
import { toInputProfile } from '@/core/icc/convert';
import { Problem } from '@/core/problem';
import { outputPath, readInput, writeOutput } from './files';
import { choice, listed, numberOption, readPoints, sizeOption } from './values';
import { kelvin, neutral, points, size, title, verb, writes, type Verb } from './verb';

const load = (path: string | undefined): Dcp => readDcp(new Uint8Array(readInput(path, 'camera profile')));
const usage = (message: string, where: string, remedy: string): Problem => new Problem('usage', message, where, remedy);

/** "r,g,b", above zero. */
function neutralOption(value: string | undefined): number[] {
  if (!value) throw usage('The neutral is missing.', '--neutral', 'Give three camera values: --neutral r,g,b.');
  return checkNeutral(value.split(',').map((part) => (part.trim() === '' ? NaN : Number(part))));
}

const stagesOption = (value: string | undefined): readonly Stage[] =>
  listed(value)?.map((stage) => choice(stage, 'stages', STAGES, 'curve')) ?? STAGES;

const kelvinOption = (value: string | undefined): number => numberOption(value, 'kelvin', 2000, 50000, 5000);

/** Writes a profile that was made, and tells its tags. */
async function writtenProfile(path: string, made: Dcp): Promise<object> {
  await writeOutput(path, writeDcp(made));
  return { written: path, tags: describe(made) };
}

const info = verb({
  about: 'a DNG camera profile: byte order and every tag',
  takes: '<profile...>',
  each: true,
  example: 'camera info alder-standard.dcp',
  run: async ({ files: [file] }) => {
    const dcp = load(file);
    checkProfile(profileOf(dcp));
    return { byteOrder: dcp.little ? 'little' : 'big', tags: describe(dcp) };
  },
});

const spaces = ['prophoto-linear', 'srgb', 'xyz'] as const;

const render = verb({
  about: 'camera values rendered by the profile',
  takes: '<profile...>',
  each: true,
  example: 'camera render alder-standard.dcp --neutral 0.5,1,0.6 --points points.json --space srgb --json',
  options: {
    neutral,
    points,
    stages: { value: 'LIST', about: '"" leaves the matrices', words: STAGES },
    space: { value: 'SPACE', about: 'of the results', words: spaces },
  },
  run: async ({ files: [file], options }) => {
    const profile = profileOf(load(file));
    const space = choice(options.space, 'space', spaces, 'prophoto-linear') satisfies RenderSpace;
    const run = renderer(profile, neutralOption(options.neutral), stagesOption(options.stages), space);
    const rows = readPoints(options.points);
    const values = Float64Array.from(rows.flat());
    run(values);
    return rows.map((_, i) => [values[i * 3], values[i * 3 + 1], values[i * 3 + 2]]);
  },
});

const white = verb({
  about: 'the white that a neutral means: x, y, kelvin, tint, reachable',
  takes: '<profile...>',
  each: true,
  example: 'camera white alder-standard.dcp --neutral 0.5,1,0.6',
  options: { neutral },
  run: async ({ files: [file], options }) => whitePoint(profileOf(load(file)), neutralOption(options.neutral)),
});

const anchor = verb({
  about: 'the profile in which a neutral sits at a temperature, with the proof',
  takes: '<profile>',
  example: 'camera anchor alder-infrared.dcp --neutral 0.9,0.4,0.3 --kelvin 5000 -o anchored.dcp',
  options: { ...writes, neutral, kelvin },
  run: async ({ files: [file], options }) => {
    const path = outputPath(options);
    const dcp = load(file);
    const of = neutralOption(options.neutral);
    if (options.kelvin === undefined)
      throw usage('The temperature is missing.', '--kelvin', 'Give it in kelvin, 2000 to 50000.');
    const bytes = writeDcp(anchorDcp(dcp, of, kelvinOption(options.kelvin)));
    const profile = profileOf(readDcp(bytes));
    const rendered = Float64Array.from(of);
    renderer(profile, of, [])(rendered);
    await writeOutput(path, bytes);
    return { before: whitePoint(profileOf(dcp), of), after: whitePoint(profile, of), rendered: [...rendered] };
  },
});

const curves = ['linear', 'editor', 'keep'] as const;
const droppable = ['look', 'hue-sat'] as const;

const edit = verb({
  about: 'a profile derived from another',
  takes: '<profile>',
  example: 'camera edit alder-standard.dcp --curve linear --drop look -o alder-linear.dcp',
  options: {
    ...writes,
    name: { value: 'TEXT', about: 'its name' },
    camera: { value: 'MODEL', about: 'the camera that it is for' },
    copyright: { value: 'TEXT', about: 'whose it is' },
    curve: { value: 'CURVE', about: 'its tone curve', words: curves },
    drop: { value: 'TABLE', about: 'a table to leave out', words: droppable, many: true },
  },
  run: async ({ files: [file], options }) => {
    const path = outputPath(options);
    const made = editDcp(load(file), {
      ...(options.name !== undefined ? { name: options.name } : {}),
      ...(options.camera !== undefined ? { camera: options.camera } : {}),
      ...(options.copyright !== undefined ? { copyright: options.copyright } : {}),
      curve: choice(options.curve, 'curve', curves, 'keep'),
      drop: options.drop.flatMap((one) => one.split(',')).map((one) => choice(one, 'drop', droppable, 'look')),
    });
    return writtenProfile(path, made);
  },
});

const lights = ['1', '2'] as const;

const split = verb({
  about: 'one light’s half of a profile of two',
  takes: '<profile>',
  example: 'camera split alder-standard.dcp --light 2 -o alder-daylight.dcp',
  options: { ...writes, light: { value: 'N', about: 'which of the two', words: lights } },
  run: async ({ files: [file], options }) => {
    const path = outputPath(options);
    const light = choice(options.light, 'light', lights, '1') === '1' ? 0 : 1;
    return writtenProfile(path, splitDcp(load(file), light));
  },
});

const merge = verb({
  about: 'two profiles of one light each as one',
  takes: '<warm> <cold>',
  example: 'camera merge alder-tungsten.dcp alder-daylight.dcp -o alder.dcp',
  options: writes,
  run: async ({ files: [first, second], options }) => {
    const path = outputPath(options);
    return writtenProfile(path, mergeDcp(load(first), load(second)));
  },
});

const convert = verb({
  about: 'as an ICC input profile for one light, with the residual',
  takes: '<profile>',
  example: 'camera convert alder-standard.dcp --kelvin 5500 -o alder.icc',
  options: { ...writes, kelvin, size, title },
  run: async ({ files: [file], options }) => {
    const path = outputPath(options);
    const profile = profileOf(load(file));
    const light = kelvinOption(options.kelvin);
    const made = await toInputProfile(profile, light, {
      title: options.title ?? `Camera at ${light} K`,
      created: new Date(),
      grid: sizeOption(options.size, 129, 33),
    });
    await writeOutput(path, made.bytes);
    return { residual: made.residual };
  },
});

export const verbs: Record<string, Verb> = { info, render, white, anchor, edit, split, merge, convert };
