/** What a look's values mean: a look for values in another encoding, as a look for sRGB values, which is how everything here applies it. */
import { between, spaces, type SpaceName } from '../color/spaces';
import { linear, srgb, type Transfer } from '../color/transfer';
import { primaryNames, rangeNames, transferNames, type PrimaryName, type TransferName } from './encoding-names';
import { fromRows, type Encoding, type Look, type Values } from './look';
import { sampler, type Evaluate } from './sample';

const primaries: Record<PrimaryName, SpaceName> = {
  sRGB: 'srgb',
  'Display P3': 'p3',
  'Rec. 2020': 'rec2020',
  ProPhoto: 'prophoto',
};
const gamma = (g: number): Transfer => ({
  name: `gamma ${g}`,
  title: `gamma ${g}`,
  encode: (v) => Math.sign(v) * Math.abs(v) ** (1 / g),
  decode: (v) => Math.sign(v) * Math.abs(v) ** g,
});
const transfers: Record<TransferName, Transfer> = {
  sRGB: srgb,
  linear,
  'gamma 2.2': gamma(2.2),
  'gamma 2.4': gamma(2.4),
};

/** The part of an encoding that changes what a table does: what it takes, and what it gives where that is another thing. */
export type AssumedEncoding = Pick<Encoding, 'primaries' | 'transfer' | 'range' | 'output'>;
const plainValues = (v: Values): boolean => v.primaries === 'sRGB' && v.transfer === 'sRGB' && v.range === 'full';
export const isPlain = (e: AssumedEncoding): boolean => plainValues(e) && plainValues(e.output ?? e);
/** Not by `in`: a table of names has words of its own, such as "constructor". */
const isOne = <Name extends string>(names: readonly Name[], text: string): text is Name =>
  (names as readonly string[]).includes(text);
const textOf = (v: Values): string => `${v.primaries}, ${v.transfer}, ${v.range}`;
function valuesOf(text: string): Values | null {
  const [light = '', transfer = '', range = ''] = text.split(',').map((word) => word.trim());
  return isOne(primaryNames, light) && isOne(transferNames, transfer) && isOne(rangeNames, range)
    ? { primaries: light, transfer, range }
    : null;
}
/** "Rec. 2020, linear, full", or "Rec. 2020, linear, full → sRGB, sRGB, full", and back; null for what is no encoding that is known. */
export const encodingText = (encoding: AssumedEncoding): string =>
  encoding.output && textOf(encoding.output) !== textOf(encoding)
    ? `${textOf(encoding)} → ${textOf(encoding.output)}`
    : textOf(encoding);
export function encodingOfText(text: string): AssumedEncoding | null {
  const [takes = '', gives, ...more] = text.split('→');
  const values = valuesOf(takes);
  const output = gives === undefined ? null : valuesOf(gives);
  if (!values || more.length || (gives !== undefined && !output)) return null;
  return { ...values, ...(output ? { output } : {}) };
}
/** Other encodings that are worth a look, besides the one that holds. */
export const otherEncodings: readonly AssumedEncoding[] = [
  'sRGB, sRGB, full',
  'sRGB, gamma 2.2, full',
  'sRGB, gamma 2.4, legal',
  'sRGB, linear, full',
  'Display P3, sRGB, full',
  'Rec. 2020, gamma 2.4, full',
  'Rec. 2020, linear, full',
  'ProPhoto, linear, full',
  'sRGB, linear, full → sRGB, sRGB, full',
  'Rec. 2020, linear, full → sRGB, sRGB, full',
].map((t) => encodingOfText(t)!);

/** `f` takes and gives values in the encoding; the answer takes and gives encoded sRGB. Legal range is 16…235 of 8 bits. */
export function evaluateUnder(evaluate: Evaluate, encoding: AssumedEncoding): Evaluate {
  if (isPlain(encoding)) return evaluate;
  const side = (values: Values) => ({
    // what a file names otherwise is taken for sRGB, as all that says nothing is
    space: spaces[isOne(primaryNames, values.primaries) ? primaries[values.primaries] : 'srgb'],
    curve: isOne(transferNames, values.transfer) ? transfers[values.transfer] : srgb,
    low: values.range === 'legal' ? 16 / 255 : 0,
    span: values.range === 'legal' ? 219 / 255 : 1,
  });
  const takes = side(encoding);
  const gives = side(encoding.output ?? encoding);
  const into = between(spaces.srgb, takes.space);
  const back = between(gives.space, spaces.srgb);
  const values = new Float64Array(3);
  const by = (matrix: number[]): void => {
    const r = values[0]!;
    const g = values[1]!;
    const b = values[2]!;
    for (let c = 0; c < 3; c++) values[c] = matrix[c * 3]! * r + matrix[c * 3 + 1]! * g + matrix[c * 3 + 2]! * b;
  };
  return (r, g, b, out, at) => {
    values[0] = srgb.decode(r);
    values[1] = srgb.decode(g);
    values[2] = srgb.decode(b);
    by(into);
    for (let c = 0; c < 3; c++)
      values[c] = takes.low + takes.span * Math.min(1, Math.max(0, takes.curve.encode(values[c]!)));
    evaluate(values[0], values[1], values[2], values, 0);
    for (let c = 0; c < 3; c++) values[c] = gives.curve.decode((values[c]! - gives.low) / gives.span);
    by(back);
    for (let c = 0; c < 3; c++) out[at + c] = srgb.encode(values[c]!);
  };
}

/** A table read so, as a table for sRGB values: of its own size, at least 33, twice that where its values are linear. */
export function tableUnder(look: Look, encoding: AssumedEncoding): Look {
  if (isPlain(encoding)) return look;
  const evaluate = evaluateUnder(sampler(look), encoding);
  const size = Math.min(
    65,
    Math.max(33, look.kind === '3d' ? look.size : 33) * (encoding.transfer === 'linear' ? 2 : 1),
  );
  return {
    ...fromRows(size, look.title, (row, n) => {
      for (let i = 0; i < n; i += 3) evaluate(row[i]!, row[i + 1]!, row[i + 2]!, row, i);
    }),
    format: look.format,
    title: look.title,
    comments: look.comments,
    warnings: look.warnings,
  };
}
