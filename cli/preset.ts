/** The verbs of presets: of any shipped editor, or our own settings. */
import { basename } from 'node:path';
import { editorKey, parseDescriptor, type Descriptor } from '@/core/editor/descriptor';
import { writeCube } from '@/core/look/cube';
import { LEAST_EV, MOST_EV } from '@/core/look/tonal-range';
import { bake as bakeTable, bakeResidual, split } from '@/core/preset/bake';
import { convertPreset, languageIn } from '@/core/preset/convert';
import type { Settings } from '@/core/preset/kinds';
import type { ReadPreset } from '@/core/preset/mapping';
import { compile } from '@/core/preset/render';
import { faults, settingById } from '@/core/preset/settings';
import { writePreset } from '@/core/preset/write';
import { Problem } from '@/core/problem';
import { readPreset } from '@/core/recognise';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import tessel7 from '@/standins/descriptors/tessel-7.json';
import { outputFor, readInput, writeOutput } from './files';
import { listed, numberOption, readPoints, sizeOption } from './values';
import { points, size, title, verb, writes, type Verb } from './verb';

export const shipped = (): Descriptor[] => [oxbow2, marlstone3, marlstone4, tessel7].map((one) => parseDescriptor(one));

/** Editors that ship, and those that are named besides; these come first. */
function known(named: readonly string[] | undefined): Descriptor[] {
  const own = (named ?? []).map((path) => parseDescriptor(parsed(readInput(path, 'descriptor'), path), path));
  return [...own, ...shipped()];
}

/** The editor that is written for. */
function editorNamed(key: string | undefined, descriptors: readonly Descriptor[]): Descriptor {
  const found = descriptors.find((one) => editorKey(one) === key);
  if (found) return found;
  const ones = descriptors.map(editorKey).join(', ');
  if (!key) throw new Problem('usage', 'The editor is missing.', '--to', `Name it with --to; known are ${ones}.`);
  throw new Problem(
    'editor-unknown',
    `No descriptor for ${key}.`,
    '--to',
    `Known are ${ones}; add one with --descriptor.`,
  );
}

interface Loaded extends ReadPreset {
  editor: string;
  version: string;
  /** the file, where it is in an editor's language */ bytes?: Uint8Array;
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
    identity: {},
    settings,
    classes: {},
    references: [],
    unknown: {},
  };
}

interface Asked {
  editor?: string | undefined;
  descriptor?: string[] | undefined;
}

/** Our own settings, by their name or because they are the JSON that says so; editors write JSON too. */
function isOwn(path: string, bytes: Buffer): boolean {
  if (/\.settings\.json$/i.test(path)) return true;
  if (bytes[0] !== OPEN_BRACE) return false;
  const value = parsed(bytes, path) as Record<string, unknown>;
  return typeof value.settings === 'object' || Object.keys(value).every((key) => settingById.has(key));
}

function load(path = '', { editor, descriptor }: Asked = {}): Loaded {
  const bytes = readInput(path, 'preset');
  if (isOwn(path, bytes) && !editor) return ownSettings(bytes, path);
  const { read: found, format, title } = readPreset(path, bytes, known(descriptor), editor);
  const [id = '', version = ''] = format.split('@');
  return { ...found, editor: id, version, name: title, bytes };
}

const editor = { value: 'ID@VERSION', about: 'the editor whose language it is; told from the file without' } as const;
const descriptor = { value: 'FILE', many: true, about: 'a descriptor of an editor that does not ship' } as const;
const to = { value: 'ID@VERSION', about: 'the editor that it is for' } as const;
const output = { value: 'FILE', short: 'o', about: 'the preset, a folder for several, or -' } as const;

const read = verb({
  about: 'a preset in common settings',
  takes: '<preset...>',
  each: true,
  example: 'preset read rehearsal.xmp',
  options: { editor, descriptor },
  run: async ({ files: [file], options }) => {
    const { classes: _classes, bytes: _bytes, identity: _identity, ...told } = load(file, options);
    return told;
  },
});

const render = verb({
  about: 'the point settings applied to points',
  takes: '<preset...>',
  each: true,
  example: 'preset render rehearsal.xmp --points points.json --json',
  options: { points, editor, descriptor },
  run: async ({ files: [file], options }) => {
    const { settings, classes } = load(file, options);
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
    output: { ...output, about: 'a .cube file, a folder for several, or -' },
    force: writes.force,
    size,
    settings: { value: 'LIST', about: 'only these, with commas between' },
    above: { value: 'EV', about: 'reach so many stops above middle gray, 2.5 to 8; without, to display white' },
    editor,
    descriptor,
  },
  run: async ({ files: [file = ''], options }) => {
    const { path } = outputFor(options, file, '.cube');
    const points = sizeOption(options.size, 256, 33);
    const { settings, classes, name } = load(file, options);
    const baked = bakeTable(settings, points, name || 'Baked', {
      overrides: classes,
      wanted: listed(options.settings),
      above: options.above === undefined ? null : numberOption(options.above, 'above', LEAST_EV, MOST_EV, LEAST_EV),
    });
    await writeOutput(path, writeCube(baked.look));
    return { residual: bakeResidual(baked), left: baked.left };
  },
});

const nameWithoutExtension = (path: string): string => basename(path).replace(/(\.settings)?\.[^.]*$/, '');

/** What a preset's file is called by rule: as the editor's descriptor says, or as the container is. */
const extensionFor = ({ accepts, presets }: Descriptor): string =>
  accepts.find(({ kind }) => kind === 'preset')?.extension ?? `.${presets?.container ?? 'preset'}`;

const write = verb({
  about: 'common settings as a preset of an editor, read again before it counts',
  takes: '<settings...>',
  each: true,
  example: 'preset write dusk.settings.json --to oxbow@2 -o dusk.xmp',
  options: { to, title, output, force: writes.force, descriptor },
  run: async ({ files: [file = ''], options }) => {
    const target = editorNamed(options.to, known(options.descriptor));
    const { path } = outputFor(options, file, extensionFor(target));
    const { name, headings, settings } = load(file, options);
    const about = { title: options.title ?? (name || nameWithoutExtension(file)), headings };
    const made = writePreset(languageIn(target), settings, about, target.title);
    await writeOutput(path, made.bytes);
    return { written: made.written, changed: made.changed, left: made.left };
  },
});

const convert = verb({
  about: 'a preset as another editor has it, with what became of each setting',
  takes: '<preset...>',
  each: true,
  example: 'preset convert rehearsal.xmp --to marlstone@4 -o rehearsal.msteps',
  options: { to, title, output, force: writes.force, editor, descriptor },
  run: async ({ files: [file = ''], options }) => {
    const target = editorNamed(options.to, known(options.descriptor));
    const { path } = outputFor(options, file, extensionFor(target));
    const { editor: from, version, name, headings, ...read } = load(file, options);
    const about = { title: options.title ?? (name || nameWithoutExtension(file)), headings, identity: read.identity };
    const made = convertPreset({ ...read, about, language: `${from}@${version}` }, target);
    await writeOutput(path, made.written.bytes);
    const { carried, approximated, left, rendering } = made;
    return { carried, approximated, left, rendering };
  },
});

export const verbs: Record<string, Verb> = { read, render, bake, write, convert };
