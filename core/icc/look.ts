/** ICC abstract and device-link profiles as looks: sRGB in and out, relative colorimetric, without black point compensation. */
import { fromRows } from '../look/look';
import { programOf, readProgram, type Program } from '../look/program';
import { sampler } from '../look/sample';
import { Problem } from '../problem';
import { iccHeader, isIcc } from './header';
import { transform } from './transform';

const unit = { min: [0, 0, 0], max: [1, 1, 1] };

/** A function over interleaved sRGB triples, in place. */
async function chainOf(bytes: Uint8Array): Promise<{ run(v: Float64Array): void; close(): void }> {
  const header = iccHeader(bytes);
  if (header.class === 'link') {
    if (header.space.trim() !== 'RGB' || header.pcs.trim() !== 'RGB')
      throw new Problem(
        'icc-space',
        `A device link from ${header.space.trim()} to ${header.pcs.trim()} is no look.`,
        'the header',
        'Take a link from RGB to RGB.',
      );
    const through = await transform(bytes, null);
    return { run: (v) => v.set(through.run(v)), close: through.close };
  }
  if (header.class !== 'abstract')
    throw new Problem(
      'icc-class',
      `An ICC profile of the class ${header.class} is no look.`,
      'the header',
      'Looks are abstract profiles and device links.',
    );
  const toLab = await transform('srgb', 'lab');
  const abstract = await transform(bytes, 'lab');
  const toSrgb = await transform('lab', 'srgb');
  return {
    run: (v) => v.set(toSrgb.run(abstract.run(toLab.run(v)))),
    close: () => {
      toLab.close();
      abstract.close();
      toSrgb.close();
    },
  };
}

/** Results of a look for many points at once, unclamped; points are held to 0…1. */
export async function evaluateIcc(bytes: Uint8Array, points: ArrayLike<number>, strength = 1): Promise<Float64Array> {
  const chain = await chainOf(bytes);
  const inputs = Float64Array.from(points, (v) => Math.min(1, Math.max(0, v)));
  const values = inputs.slice();
  try {
    chain.run(values);
  } finally {
    chain.close();
  }
  return strength === 1 ? values : values.map((v, i) => inputs[i]! + strength * (v - inputs[i]!));
}

/** As a program over a table of so many points; for exact values see `evaluateIcc`. */
export async function readIccLook(bytes: Uint8Array, size = 65): Promise<Program> {
  const chain = await chainOf(bytes);
  const header = iccHeader(bytes);
  try {
    const look = {
      ...fromRows(size, header.description, (row, n) => {
        const part = row.subarray(0, n).slice();
        chain.run(part);
        row.set(part);
      }),
      format: 'icc' as const,
    };
    return {
      ...programOf({ format: 'icc', kind: 'icc', title: header.description, look }, unit, () => () => {}),
      evaluate: (i, s) => sampler(look, i, s),
    };
  } finally {
    chain.close();
  }
}

/** Any look's file, ICC profiles included. */
export const readAnyLook = async (bytes: Uint8Array): Promise<Program> =>
  isIcc(bytes) ? readIccLook(bytes) : readProgram(bytes);
