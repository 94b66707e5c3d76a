import { parseArgs } from 'node:util';
import { gamutOutline } from '@/core/icc/gamut';
import { iccHeader } from '@/core/icc/header';
import { once, type Intent, type Side } from '@/core/icc/transform';
import { Problem } from '@/core/problem';
import { choice, readInput, readNumbers } from './input';
import type { Verb } from './main';

const load = (path: string | undefined): Uint8Array => new Uint8Array(readInput(path, 'profile'));

const info: Verb = async (args) => {
  const { positionals } = parseArgs({ args, allowPositionals: true, options: {} });
  const bytes = load(positionals[0]);
  const header = iccHeader(bytes);
  const device =
    header.space === 'RGB' &&
    (header.class === 'input' || header.class === 'display' || header.class === 'output' || header.class === 'space');
  return {
    ...header,
    gamut: device
      ? await gamutOutline(bytes).catch((error: unknown) => {
          if (error instanceof Problem) return null;
          throw error;
        })
      : null,
  };
};

const side = (value: string | undefined, name: string, known: readonly string[]): Side => {
  if (!value)
    throw new Problem('usage', `--${name} is missing.`, `--${name}`, `Name a profile, or ${known.join(' or ')}.`);
  return known.includes(value) ? (value as Side) : load(value);
};

const transform: Verb = async (args) => {
  const { values } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      from: { type: 'string' },
      to: { type: 'string' },
      intent: { type: 'string' },
      'black-point': { type: 'string' },
      points: { type: 'string' },
    },
  });
  const from = side(values.from, 'from', ['srgb', 'lab', 'xyz']);
  const link = typeof from !== 'string' && iccHeader(from).class === 'link';
  const to = link ? null : side(values.to, 'to', ['srgb', 'lab', 'xyz']);
  const points = readNumbers(values.points);
  const out = await once(
    from,
    to,
    points.flat(),
    choice(
      values.intent,
      'intent',
      ['perceptual', 'relative', 'saturation', 'absolute'] as const,
      'relative',
    ) satisfies Intent,
    choice(values['black-point'], 'black-point', ['on', 'off'] as const, 'off') === 'on',
  );
  const n = points.length ? out.length / points.length : 0;
  return points.map((_, i) => [...out.slice(i * n, (i + 1) * n)]);
};

export const verbs: Record<string, Verb> = { info, transform };
