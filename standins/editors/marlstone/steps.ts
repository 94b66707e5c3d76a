/**
 * Presets of Marlstone: edition 3 writes sections of `key=value`, edition 4 a list of steps in XML; the same work, under
 * names and scales of each. What an edition does not know it passes over.
 */
import { SaxesParser } from 'saxes';
import type { Adjustments, Sector } from '../adjust';
import type { Point } from '../line';

type Edition = 3 | 4;

interface Step {
  name: string;
  said: Record<string, string>;
}
export interface Preset {
  title: string;
  headings: string[];
  adjustments: Adjustments;
}

/** Sections in their order, of the text from `[marlstone]` on. Throws where that is missing. */
function stepsOfText(text: string): Step[] {
  const own = /^\[marlstone\]\s*$/m.exec(text);
  if (!own) throw new Error('the section [marlstone] is missing');
  const sections = text.slice(own.index).matchAll(/^\[([\w-]+)\][^\S\n]*\n((?:(?!\[).*(?:\n|$))*)/gm);
  return [...sections].map(([, name = '', lines = '']) => ({
    name,
    said: Object.fromEntries(
      [...lines.matchAll(/^(\w+)\s*=\s*(.*)$/gm)].map(([, key = '', value = '']): [string, string] => [
        key,
        value.trim(),
      ]),
    ),
  }));
}

/** Elements in their order. Throws where the XML is broken. */
function stepsOfXml(text: string): Step[] {
  const steps: Step[] = [];
  const parser = new SaxesParser({ xmlns: false });
  parser.on('error', (error) => {
    throw new Error(
      steps.length
        ? `the XML is broken: ${error.message.slice(0, 80)}`
        : 'Marlstone 4 reads presets as a list of steps in XML; presets of edition 3 have to be brought over first',
    );
  });
  parser.on('opentag', ({ name, attributes }) => {
    steps.push({ name, said: attributes });
  });
  parser.write(text).close();
  if (steps[0]?.name !== 'marlstone-steps') throw new Error('the XML holds no list of steps');
  return steps;
}

function number(step: Step, key: string): number | undefined {
  const text = step.said[key];
  if (text === undefined) return undefined;
  const value = Number(text);
  if (text === '' || !Number.isFinite(value)) throw new Error(`${step.name}: ${key} is no number`);
  return value;
}

/** In straight lines between points, level beyond them. */
function between(points: readonly Point[], x: number): number {
  const after = points.findIndex(([at]) => at >= x);
  if (after === 0) return points[0]![1];
  if (after < 0) return points.at(-1)![1];
  const [[fromX, fromY], [toX, toY]] = [points[after - 1]!, points[after]!];
  return fromY + ((toY - fromY) * (x - fromX)) / (toX - fromX);
}

/** `0:0;0.5:0.6;1:1` */
function curve(step: Step, key: string): Point[] | undefined {
  const text = step.said[key];
  if (text === undefined) return undefined;
  return text.split(';').map((pair) => {
    const [x, y, more] = pair.split(':').map(Number);
    if (x === undefined || y === undefined || more !== undefined || !Number.isFinite(x + y))
      throw new Error(`${step.name}: ${key} holds “${pair.slice(0, 20)}”, which is no point`);
    return [x, y];
  });
}

/** Four pigments, each a part of the circle of hues. */
const pigments: ReadonlyMap<string, Part> = new Map([
  ['madder', { center: 20, width: 80 }],
  ['ochre', { center: 75, width: 80 }],
  ['verdigris', { center: 170, width: 90 }],
  ['smalt', { center: 255, width: 90 }],
]);
type Part = Pick<Sector, 'center' | 'width'>;

function pigment(part: Part, step: Step): Sector {
  const depth = number(step, 'depth') ?? 100;
  const lift = number(step, 'lift') ?? 0;
  return {
    ...part,
    turn: 0.3 * (number(step, 'turn') ?? 0),
    chroma: depth / 100,
    lightness: lift / 500,
  };
}

const engraved = (step: Step): Sector[] => [
  { center: 20, width: 110, lightness: (number(step, 'madder') ?? 0) / 500 },
  { center: 255, width: 120, lightness: (number(step, 'smalt') ?? 0) / 500 },
];

/** What a number of a step does. */
type Effect = (value: number) => Adjustments;
/** By step and key; a name that every object has leads to a list without keys. */
type Effects = Readonly<Record<string, Readonly<Record<string, Effect>>>>;

const ends: Record<string, Effect> = {
  floor: (value) => ({ low: value / 100 }),
  ceiling: (value) => ({ high: value / 100 }),
};
const numbers: Record<Edition, Effects> = {
  3: {
    light: {
      ...ends,
      amount: (percent) => ({ stops: Math.log2(percent / 100) }),
      snap: (value) => ({
        contrast: between(
          [
            [-50, 0.6],
            [0, 1],
            [50, 1.7],
          ],
          value,
        ),
      }),
      deepen: (value) => ({ foot: -value }),
      glow: (value) => ({ head: value }),
    },
    pigment: {
      depth: (percent) => ({ chroma: percent / 100 }),
      pale: (value) => ({ pale: value }),
      heat: (value) => ({ mired: 1.5 * value }),
      rose: (value) => ({ magenta: value }),
    },
    surround: { shade: (value) => ({ corners: -value / 50 }) },
  },
  4: {
    fire: {
      ...ends,
      raise: (value) => ({ stops: value }),
      bite: (value) => ({ contrast: 1 + value / 100 }),
      hollow: (value) => ({ foot: -value }),
      crest: (value) => ({ head: value }),
    },
    ground: {
      load: (value) => ({ chroma: 1 + value / 100 }),
      pale: (value) => ({ pale: value }),
      ember: (value) => ({ mired: value }),
      rose: (value) => ({ magenta: value }),
    },
    edge: { shade: (value) => ({ corners: -value / 50 }) },
  },
};
const words = {
  3: { curves: 'trace', coat: 'glaze', thin: 0.0015, plate: 'engraving' },
  4: { curves: 'sinew', coat: 'slip', thin: 0.003, plate: 'etching' },
} as const;

/** What one step adds to those before it. */
function taken(before: Adjustments, step: Step, edition: Edition): Adjustments {
  const { curves, coat, thin, plate } = words[edition];
  const after = { ...before };
  for (const [key, effect] of Object.entries(numbers[edition][step.name] ?? {})) {
    const value = number(step, key);
    if (value !== undefined) Object.assign(after, effect(value));
  }
  const part = pigments.get(step.name);
  if (part) after.sectors = [...(before.sectors ?? []), pigment(part, step)];
  if (step.name === plate) after.plate = engraved(step);
  if (step.name === curves) {
    after.curve = curve(step, 'whole');
    after.curves = [curve(step, 'r'), curve(step, 'g'), curve(step, 'b')];
  }
  if (step.name === coat) {
    const wash = { hue: number(step, 'hue') ?? 0, amount: thin * (number(step, 'coat') ?? 0) };
    if (step.said.on === 'dark') after.deep = wash;
    if (step.said.on === 'light') after.bright = wash;
  }
  return after;
}

/** Throws, with the reason, what is no preset of the edition. */
export function presetIn(text: string, edition: Edition): Preset {
  const [own, ...steps] = edition === 4 ? stepsOfXml(text) : stepsOfText(text);
  const said = own?.said ?? {};
  if (said.edition !== String(edition)) throw new Error(`a preset of edition ${said.edition || 'unknown'}`);
  return {
    title: (edition === 4 ? said.title : said.name) ?? '',
    headings: (said.drawer ?? '').split('/').filter(Boolean),
    adjustments: steps.reduce<Adjustments>((before, step) => taken(before, step, edition), {}),
  };
}
