/** Encodings by name, to and from the sRGB values that looks are taken for: primaries, then "-linear" where the values are light. */
import { transformTo } from '../color/matrix';
import { between, spaces, type SpaceName } from '../color/spaces';
import { decodeSrgb, encodeSrgb } from '../color/transfer';

/** sRGB, Display P3, Rec. 2020 and ProPhoto, with the sRGB curve or linear. */
export const encodingNames = (Object.keys(spaces) as SpaceName[]).flatMap((n) => [n, `${n}-linear`]);

/** Both act in place on v[at…at+2]; null where there is nothing to do. */
export function encodingOf(
  name: string,
): { toSrgb(v: Float64Array, at: number): void; fromSrgb(v: Float64Array, at: number): void } | null {
  const linear = name.endsWith('-linear');
  const space = spaces[name.replace('-linear', '') as SpaceName];
  if (name === 'srgb') return null;
  const to = between(space, spaces.srgb);
  const from = between(spaces.srgb, space);
  const by = (matrix: number[], values: Float64Array, at: number): void =>
    transformTo(matrix, values[at]!, values[at + 1]!, values[at + 2]!, values, at);
  const each = (values: Float64Array, at: number, curve: (x: number) => number): void => {
    for (let c = 0; c < 3; c++) values[at + c] = curve(values[at + c]!);
  };
  return {
    toSrgb: (values, at) => {
      if (!linear) each(values, at, decodeSrgb);
      by(to, values, at);
      each(values, at, encodeSrgb);
    },
    fromSrgb: (values, at) => {
      each(values, at, decodeSrgb);
      by(from, values, at);
      if (!linear) each(values, at, encodeSrgb);
    },
  };
}
