import { must } from '@/core/must';
import { writeFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { writeCube } from '@/core/look/cube';
import { parseDescriptor, type Descriptor } from '@/core/editor/descriptor';
import { readPreset } from '@/core/recognise';
import { bake, bakeResidual, split, type ClassOverrides } from '@/core/preset/bake';
import type { Settings } from '@/core/preset/kinds';
import { compile } from '@/core/preset/render';
import { faults } from '@/core/preset/settings';
import { Problem } from '@/core/problem';
import marlstone3 from '@/standins/descriptors/marlstone-3.json';
import marlstone4 from '@/standins/descriptors/marlstone-4.json';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { numberOption, readInput, readPoints } from './input';
import type { Verb } from './main';

export const shipped = (): Descriptor[] => [oxbow2, marlstone3, marlstone4].map((d) => parseDescriptor(d));

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

/** A preset of any shipped editor, or our own *.settings.json: either the settings alone, or {name, settings}. */
function load(path: string | undefined, editor?: string): Loaded {
  const bytes = readInput(path, 'preset');
  if (/\.settings\.json$/i.test(must(path)) || (bytes[0] === 123 && !editor)) {
    let value: unknown;
    try {
      value = JSON.parse(bytes.toString('utf8'));
    } catch {
      throw new Problem(
        'settings-json',
        'The settings are no JSON.',
        must(path),
        'Write them as a JSON object of common settings.',
      );
    }
    if (!value || typeof value !== 'object' || Array.isArray(value))
      throw new Problem(
        'settings-json',
        'The settings are no JSON object.',
        must(path),
        'Write them as a JSON object of common settings.',
      );
    const outer = value as { name?: string; headings?: string[]; settings?: Settings };
    const settings = outer.settings ?? (value as Settings);
    const bad = faults(settings);
    if (bad.length)
      throw new Problem(
        'settings-value',
        bad.map((b) => `${b.setting} ${b.message}.`).join(' '),
        must(path),
        'See docs/common-settings.md for units and ranges.',
      );
    return {
      editor: 'etagere',
      version: '1',
      name: outer.settings ? (outer.name ?? '') : '',
      headings: outer.settings ? (outer.headings ?? []) : [],
      settings,
      classes: {},
      references: [],
      unknown: {},
    };
  }
  const { read, format, title } = readPreset(must(path), bytes, shipped(), editor);
  const [id, version] = format.split('@') as [string, string];
  return {
    editor: id,
    version,
    name: title,
    headings: read.headings,
    settings: read.settings,
    classes: read.classes,
    references: read.references,
    unknown: read.unknown,
  };
}

const read: Verb = async (args) => {
  const { positionals, values } = parseArgs({ args, allowPositionals: true, options: { editor: { type: 'string' } } });
  const loaded = load(positionals[0], values.editor);
  return {
    editor: loaded.editor,
    version: loaded.version,
    name: loaded.name,
    headings: loaded.headings,
    settings: loaded.settings,
    references: loaded.references,
    unknown: loaded.unknown,
  };
};

const render: Verb = async (args) => {
  const { positionals, values } = parseArgs({
    args,
    allowPositionals: true,
    options: { points: { type: 'string' }, editor: { type: 'string' } },
  });
  const loaded = load(positionals[0], values.editor);
  const evaluate = compile(split(loaded.settings, loaded.classes).kept);
  const v = new Float64Array(3);
  return readPoints(values.points).map((x) => {
    evaluate(must(x[0]), must(x[1]), must(x[2]), v, 0);
    return [...v];
  });
};

const bakeVerb: Verb = async (args) => {
  const { positionals, values } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      size: { type: 'string' },
      output: { type: 'string', short: 'o' },
      settings: { type: 'string' },
      editor: { type: 'string' },
    },
  });
  const loaded = load(positionals[0], values.editor);
  const size = numberOption(values.size, 'size', 2, 256, 33);
  if (!values.output) throw new Problem('usage', 'The output is missing.', '-o', 'Name a .cube file with -o.');
  if (!Number.isInteger(size))
    throw new Problem('usage', '--size must be a whole number.', '--size', 'Correct the option.');
  const baked = bake(
    loaded.settings,
    size,
    loaded.name || 'Baked',
    loaded.classes,
    values.settings
      ?.split(',')
      .map((s) => s.trim())
      .filter(Boolean),
  );
  writeFileSync(values.output, writeCube(baked.look));
  return { residual: bakeResidual(baked), left: baked.left };
};

export const verbs: Record<string, Verb> = { read, render, bake: bakeVerb };
