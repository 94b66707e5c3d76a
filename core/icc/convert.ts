/** Looks as ICC device links and abstract profiles, and camera profiles as ICC input profiles, each with the error of its table. */
import { deltaE2000 } from '../color/difference';
import { renderer, type Stage } from '../camera/render';
import { neutralOf } from '../camera/white';
import type { Profile } from '../camera/dcp';
import { haltonPoints, residual, type Residual } from '../look/residual';
import type { Evaluate } from '../look/sample';
import { describedAs } from './coding';
import { evaluateIcc } from './look';
import { once, transform } from './transform';
import { decodeLab16, encodeLab16, encodeXyz16, writeTableProfile } from './write';

interface About {
  title: string;
  copyright?: string;
  created: Date;
  grid?: number;
}

const inBlocks = (values: ArrayLike<number>): Evaluate => {
  let i = 0;
  return (_r, _g, _b, out, at) => {
    out[at] = values[i]!;
    out[at + 1] = values[i + 1]!;
    out[at + 2] = values[i + 2]!;
    i += 3;
  };
};

/** A look over sRGB values as a device link from RGB to RGB; `created` is written into the header. */
export async function toDeviceLink(
  evaluate: Evaluate,
  about: About,
): Promise<{ bytes: Uint8Array; residual: Residual }> {
  const bytes = writeTableProfile({
    class: 'link',
    space: 'RGB ',
    pcs: 'RGB ',
    description: about.title,
    copyright: about.copyright ?? '',
    created: about.created,
    grid: about.grid ?? 33,
    f: (row) => {
      for (let i = 0; i < row.length; i += 3) evaluate(row[i]!, row[i + 1]!, row[i + 2]!, row, i);
    },
  });
  return { bytes, residual: residual(evaluate, inBlocks(await evaluateIcc(bytes, haltonPoints())), haltonPoints()) };
}

/** A look over sRGB values as an abstract profile, Lab to Lab; what lies outside sRGB passes beside it. */
export async function toAbstract(evaluate: Evaluate, about: About): Promise<{ bytes: Uint8Array; residual: Residual }> {
  const back = await transform('lab', 'srgb');
  const forth = await transform('srgb', 'lab');
  try {
    const bytes = writeTableProfile({
      class: 'abst',
      space: 'Lab ',
      pcs: 'Lab ',
      description: about.title,
      copyright: about.copyright ?? '',
      created: about.created,
      grid: about.grid ?? 33,
      f: (row) => {
        const lab = row.slice();
        for (let i = 0; i < lab.length; i += 3) lab.set(decodeLab16(lab[i]!, lab[i + 1]!, lab[i + 2]!), i);
        const rgb = back.run(lab);
        const held = rgb.map((v) => Math.min(1, Math.max(0, v)));
        const own = forth.run(held);
        const done = held.slice();
        for (let i = 0; i < done.length; i += 3) evaluate(done[i]!, done[i + 1]!, done[i + 2]!, done, i);
        const out = forth.run(done);
        for (let i = 0; i < row.length; i += 3)
          row.set(
            encodeLab16(
              out[i]! + lab[i]! - own[i]!,
              out[i + 1]! + lab[i + 1]! - own[i + 1]!,
              out[i + 2]! + lab[i + 2]! - own[i + 2]!,
            ),
            i,
          );
      },
    });
    return { bytes, residual: residual(evaluate, inBlocks(await evaluateIcc(bytes, haltonPoints())), haltonPoints()) };
  } finally {
    back.close();
    forth.close();
  }
}

/**
 * A camera profile at one temperature as an ICC input profile. Device values are white-balanced camera values behind the
 * square root, which the profile's description says; the residual compares L*a*b* relative to D50 over Halton points.
 */
export async function toInputProfile(
  profile: Profile,
  kelvin: number,
  about: About,
  stages?: readonly Stage[],
): Promise<{ bytes: Uint8Array; residual: { maxDeltaE: number; p95DeltaE: number; meanDeltaE: number } }> {
  const neutral = neutralOf(profile, kelvin);
  const run = renderer(profile, neutral, stages, 'xyz');
  const direct = (row: Float64Array): void => {
    for (let i = 0; i < row.length; i++) row[i] = row[i]! ** 2 * neutral[i % 3]!;
    run(row);
  };
  const bytes = writeTableProfile({
    class: 'scnr',
    space: 'RGB ',
    pcs: 'XYZ ',
    description: describedAs(about.title),
    copyright: about.copyright ?? '',
    created: about.created,
    grid: about.grid ?? 33,
    f: (row) => {
      direct(row);
      for (let i = 0; i < row.length; i++) row[i] = encodeXyz16(row[i]!);
    },
  });
  const points = haltonPoints(5000);
  const want = points.slice();
  direct(want);
  const first = await once('xyz', 'lab', want);
  const second = await once(bytes, 'lab', points);
  const values = new Float64Array(points.length / 3);
  for (let i = 0; i < values.length; i++)
    values[i] = deltaE2000(
      first[i * 3]!,
      first[i * 3 + 1]!,
      first[i * 3 + 2]!,
      second[i * 3]!,
      second[i * 3 + 1]!,
      second[i * 3 + 2]!,
    );
  const sorted = values.slice().sort();
  return {
    bytes,
    residual: {
      maxDeltaE: sorted[sorted.length - 1]!,
      p95DeltaE: sorted[Math.ceil(sorted.length * 0.95) - 1]!,
      meanDeltaE: values.reduce((x, y) => x + y, 0) / values.length,
    },
  };
}
