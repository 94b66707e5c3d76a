/** A run of Oxbow: the steps of a preset, as they stand in a packet, each with its own words and scales. */
import { SaxesParser } from 'saxes';
import type { Adjustments, Sector } from '../adjust';
import type { Point } from '../line';

const RUN = 'https://oxbow.example/ns/run/2/';

interface Step {
  name: string;
  said: Record<string, string>;
}
export interface Run {
  adjustments: Adjustments;
  /** a look of this name behind all of it, at a share of its effect */ table: { name: string; share: number } | null;
}

/** The steps in their order. Throws, with the reason, where the packet holds none. */
function stepsIn(packet: string): Step[] {
  const steps: Step[] = [];
  let isOwn = false;
  const parser = new SaxesParser({ xmlns: true });
  parser.on('error', (error) => {
    throw new Error(`the packet is broken: ${error.message.slice(0, 80)}`);
  });
  parser.on('opentag', ({ uri, attributes }) => {
    const own = Object.values(attributes).filter((attribute) => attribute.uri === RUN);
    isOwn ||= uri === RUN || own.length > 0;
    const said = Object.fromEntries(own.map(({ local, value }) => [local, value]));
    if (said.step !== undefined) steps.push({ name: said.step, said });
  });
  parser.write(packet).close();
  if (!isOwn) throw new Error('no steps of Oxbow 2 in this packet');
  if (!steps.length) throw new Error('the packet holds no steps');
  return steps;
}

function number({ name, said }: Step, key: string, without: number): number {
  const text = said[key];
  if (text === undefined) return without;
  const value = Number(text);
  if (text.trim() === '' || !Number.isFinite(value)) throw new Error(`${name}: ${key} is no number`);
  return value;
}

/** `0,0 128,140 255,255`: codes of eight bits. */
const points = ({ name, said }: Step): Point[] =>
  (said.through ?? '')
    .split(' ')
    .filter(Boolean)
    .map((pair) => {
      const [x, y] = pair.split(',').map(Number);
      if (x === undefined || y === undefined || !Number.isFinite(x + y))
        throw new Error(`${name}: “${pair.slice(0, 20)}” is no point`);
      return [x / 255, y / 255];
    });

const sector = (step: Step): Sector => ({
  center: number(step, 'at', 0),
  width: number(step, 'span', 60),
  turn: number(step, 'turn', 0),
  chroma: 1 + number(step, 'rich', 0) / 100,
  lightness: number(step, 'lift', 0) / 100,
});

/** By names that come from files: none of them means what every object has. */
const named = <T>(all: Record<string, T>): ReadonlyMap<string, T> => new Map(Object.entries(all));

type Tone = 'deep' | 'middle' | 'bright';
/** What a step adds to those before it. */
type Effect = (step: Step, before: Adjustments) => Adjustments;

const lines = named<Effect>({
  all: (step) => ({ curve: points(step) }),
  red: (step, { curves = [] }) => ({ curves: [points(step), curves[1], curves[2]] }),
  green: (step, { curves = [] }) => ({ curves: [curves[0], points(step), curves[2]] }),
  blue: (step, { curves = [] }) => ({ curves: [curves[0], curves[1], points(step)] }),
});
const tones = named<Tone>({ deep: 'deep', mean: 'middle', pale: 'bright' });

const effects = named<Effect>({
  lamp: (step) => ({ stops: number(step, 'stops', 0) }),
  spread: (step) => ({ contrast: 2 ** number(step, 'by', 0), about: number(step, 'about', 18) / 100 }),
  ends: (step) => ({ low: number(step, 'low', 0) / 255, high: number(step, 'high', 255) / 255 }),
  bend: (step) => ({ foot: 100 * number(step, 'foot', 0), head: 100 * number(step, 'head', 0) }),
  line: (step, before) => lines.get(step.said.on ?? '')?.(step, before) ?? {},
  dye: (step) => ({ chroma: 1 + number(step, 'rich', 0) / 100, pale: number(step, 'shy', 0) }),
  cast: (step) => ({ mired: number(step, 'mired', 0), magenta: -number(step, 'leaf', 0) }),
  petal: (step, { sectors = [] }) => ({ sectors: [...sectors, sector(step)] }),
  wash: (step) => {
    const tone = tones.get(step.said.over ?? '');
    return tone ? { [tone]: { hue: number(step, 'hue', 0), amount: number(step, 'load', 0) / 1000 } } : {};
  },
  plate: (_, { plate = [] }) => ({ plate }),
  'plate-band': (step, { plate = [] }) => ({ plate: [...plate, sector(step)] }),
  corners: (step) => ({ corners: number(step, 'stops', 0) }),
});

/** What a packet asks for; what Oxbow does on prints alone by their surroundings or on camera data is passed over. Throws as above. */
export function runIn(packet: string): Run {
  const steps = stepsIn(packet);
  const table = steps.findLast(({ name, said }) => name === 'table' && said.name);
  return {
    adjustments: steps.reduce<Adjustments>(
      (before, step) => ({ ...before, ...effects.get(step.name)?.(step, before) }),
      {},
    ),
    table: table ? { name: table.said.name!, share: number(table, 'share', 1) } : null,
  };
}
