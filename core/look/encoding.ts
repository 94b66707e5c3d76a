/** Encodings by name, to and from the sRGB values that looks are taken for: primaries, then "-linear" where the values are light. */
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
  const by = (m: number[], v: Float64Array, at: number): void => {
    const r = v[at]!;
    const g = v[at + 1]!;
    const b = v[at + 2]!;
    for (let c = 0; c < 3; c++) v[at + c] = m[c * 3]! * r + m[c * 3 + 1]! * g + m[c * 3 + 2]! * b;
  };
  const each = (v: Float64Array, at: number, f: (x: number) => number): void => {
    for (let c = 0; c < 3; c++) v[at + c] = f(v[at + c]!);
  };
  return {
    toSrgb: (v, at) => {
      if (!linear) each(v, at, decodeSrgb);
      by(to, v, at);
      each(v, at, encodeSrgb);
    },
    fromSrgb: (v, at) => {
      each(v, at, decodeSrgb);
      by(from, v, at);
      if (!linear) each(v, at, encodeSrgb);
    },
  };
}
