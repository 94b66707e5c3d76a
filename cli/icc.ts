/** The verbs of ICC profiles. */
import { gamutOutline } from '@/core/icc/gamut';
import { iccHeader } from '@/core/icc/header';
import { checkedIcc } from '@/core/icc/soundness';
import { once, type Side } from '@/core/icc/transform';
import { Problem } from '@/core/problem';
import { readInput } from './files';
import { choice, readNumbers } from './values';
import { points, verb, type Verb } from './verb';

const load = (path: string | undefined): Uint8Array => new Uint8Array(readInput(path, 'profile'));

const DEVICE_CLASSES = ['input', 'display', 'output', 'space'];

/** The outline of what a device can show, where its profile can be evaluated. */
const outlineOf = (bytes: Uint8Array) =>
  gamutOutline(bytes).catch((error: unknown) => {
    if (error instanceof Problem) return null;
    throw error;
  });

const info = verb({
  about: 'header, tags, description, gamut outline in a*, b*',
  takes: '<profile...>',
  each: true,
  example: 'icc info printer.icc',
  run: async ({ files: [file] }) => {
    const bytes = load(file);
    const { header, caution } = checkedIcc(bytes);
    const isDevice = header.space === 'RGB' && DEVICE_CLASSES.includes(header.class);
    return { ...header, caution, gamut: isDevice ? await outlineOf(bytes) : null };
  },
});

const sides = ['srgb', 'lab', 'xyz'] as const;
const intents = ['perceptual', 'relative', 'saturation', 'absolute'] as const;
const switches = ['on', 'off'] as const;

/** A profile by its file, or one of the spaces by its name. */
function side(value: string | undefined, name: string): Side {
  if (!value)
    throw new Problem('usage', `--${name} is missing.`, `--${name}`, `Name a profile, or ${sides.join(' or ')}.`);
  return (sides as readonly string[]).includes(value) ? (value as Side) : load(value);
}

const transform = verb({
  about: 'colors from one profile to another, by Little CMS; one number a channel',
  example: 'icc transform --from srgb --to printer.icc --intent perceptual --points points.json --json',
  options: {
    from: { value: 'FILE', about: 'a profile, or one of these', words: sides },
    to: { value: 'FILE', about: 'a profile, or one of these', words: sides },
    intent: { value: 'INTENT', about: 'relative without', words: intents },
    'black-point': { value: 'SWITCH', about: 'compensation; off without', words: switches },
    points,
  },
  run: async ({ options }) => {
    const from = side(options.from, 'from');
    const isLink = typeof from !== 'string' && iccHeader(from).class === 'link';
    const to = isLink ? null : side(options.to, 'to');
    const rows = readNumbers(options.points);
    const intent = choice(options.intent, 'intent', intents, 'relative');
    const compensate = choice(options['black-point'], 'black-point', switches, 'off') === 'on';
    const out = await once(from, to, rows.flat(), intent, compensate);
    const channels = rows.length ? out.length / rows.length : 0;
    return rows.map((_, i) => [...out.slice(i * channels, (i + 1) * channels)]);
  },
});

export const verbs: Record<string, Verb> = { info, transform };
