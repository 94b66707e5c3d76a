/** The verbs of presets: of any shipped editor, or our own settings. */
import { parseDescriptor, type Descriptor } from '@/core/editor/descriptor';
import { writeCube } from '@/core/look/cube';
import { bake as bakeTable, bakeResidual, split, type ClassOverrides } from '@/core/preset/bake';
import type { Settings } from '@/core/preset/kinds';
import { compile } from '@/core/preset/render';
import { faults } from '@/core/preset/settings';
import { Problem } from '@/core/problem';
import { readPreset } from '@/core/recognise';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { outputFor, readInput, writeOutput } from './files';
import { listed, readPoints, sizeOption } from './values';
import { points, size, verb, writes, type Verb } from './verb';

export const shipped = (): Descriptor[] => [oxbow2, marlstone3, marlstone4].map((one) => parseDescriptor(one));

interface Loaded {
  editor: string;
  version: string;
  name: string;
  headings: string[];
  settings: Settings;
  classes: ClassOverrides;
  references: unknown[];
  unknown: Record<string, string>;
}

const OPEN_BRACE = 123;
const noSettings = (message: string, path: string): Problem =>
  new Problem('settings-json', message, path, 'Write them as a JSON object of common settings.');

function parsed(bytes: Buffer, path: string): object {
  let value: unknown;
  try {
    value = JSON.parse(bytes.toString('utf8'));
  } catch {
    throw noSettings('The settings are no JSON.', path);
  }
  if (!value || typeof value !== 'object' || Array.isArray(value))
    throw noSettings('The settings are no JSON object.', path);
  return value;
}

/** Our own settings: either the settings alone, or {name, headings, settings}. */
function ownSettings(bytes: Buffer, path: string): Loaded {
  const value = parsed(bytes, path) as { name?: string; headings?: string[]; settings?: Settings };
  const settings = value.settings ?? (value as Settings);
  const bad = faults(settings);
  if (bad.length)
    throw new Problem(
      'settings-value',
      bad.map(({ setting, message }) => `${setting} ${message}.`).join(' '),
      path,
      'See docs/common-settings.md for units and ranges.',
    );
  const isWhole = value.settings !== undefined;
  return {
    editor: 'etagere',
    version: '1',
    name: (isWhole && value.name) || '',
    headings: (isWhole && value.headings) || [],
    settings,
    classes: {},
    references: [],
    unknown: {},
  };
}

function load(path = '', editor?: string): Loaded {
  const bytes = readInput(path, 'preset');
  if (/\.settings\.json$/i.test(path) || (bytes[0] === OPEN_BRACE && !editor)) return ownSettings(bytes, path);
  const { read: found, format, title } = readPreset(path, bytes, shipped(), editor);
  const [id = '', version = ''] = format.split('@');
  const { headings, settings, classes, references, unknown } = found;
  return { editor: id, version, name: title, headings, settings, classes, references, unknown };
}

const editor = { value: 'ID@VERSION', about: 'the editor whose language it is; told from the file without' } as const;

const read = verb({
  about: 'a preset in common settings',
  takes: '<preset...>',
  each: true,
  example: 'preset read rehearsal.xmp',
  options: { editor },
  run: async ({ files: [file], options }) => {
    const { classes: _classes, ...told } = load(file, options.editor);
    return told;
  },
});

const render = verb({
  about: 'the point settings applied to points',
  takes: '<preset...>',
  each: true,
  example: 'preset render rehearsal.xmp --points points.json --json',
  options: { points, editor },
  run: async ({ files: [file], options }) => {
    const { settings, classes } = load(file, options.editor);
    const evaluate = compile(split(settings, classes).kept);
    const values = new Float64Array(3);
    return readPoints(options.points).map(([r = 0, g = 0, b = 0]) => {
      evaluate(r, g, b, values, 0);
      return [...values];
    });
  },
});

const bake = verb({
  about: 'a preset as a table, with the residual and what was left out',
  takes: '<preset...>',
  each: true,
  example: 'preset bake rehearsal.xmp --size 33 -o rehearsal.cube',
  options: {
    output: { value: 'FILE', short: 'o', about: 'a .cube file, a folder for several, or -' },
    force: writes.force,
    size,
    settings: { value: 'LIST', about: 'only these, with commas between' },
    editor,
  },
  run: async ({ files: [file = ''], options }) => {
    const { path } = outputFor(options, file, '.cube');
    const points = sizeOption(options.size, 256, 33);
    const { settings, classes, name } = load(file, options.editor);
    const baked = bakeTable(settings, points, name || 'Baked', classes, listed(options.settings));
    await writeOutput(path, writeCube(baked.look));
    return { residual: bakeResidual(baked), left: baked.left };
  },
});

export const verbs: Record<string, Verb> = { read, render, bake };
