/**
 * ICC transforms by Little CMS (compiled to WebAssembly, floating point, nothing precalculated). Device values are 0…1 (so
 * are inks), Lab 0…100 and ±128, XYZ relative to D50 with Y = 1 for white.
 */
import type { Lcms } from 'lcms-wasm';
import { Problem } from '../problem';
import { iccHeader } from './header';
import { writeTableProfile } from './write';

export type Intent = 'perceptual' | 'relative' | 'saturation' | 'absolute';
const intents: Record<Intent, number> = { perceptual: 0, relative: 1, saturation: 2, absolute: 3 };
/** Pixel types and channels of Little CMS by the colour space signature; inks are in percent there. */
const kinds: Record<string, { type: number; channels: number; scale: number }> = {
  GRAY: { type: 3, channels: 1, scale: 1 },
  RGB: { type: 4, channels: 3, scale: 1 },
  CMY: { type: 5, channels: 3, scale: 100 },
  CMYK: { type: 6, channels: 4, scale: 100 },
  YCbr: { type: 7, channels: 3, scale: 1 },
  XYZ: { type: 9, channels: 3, scale: 1 },
  Lab: { type: 10, channels: 3, scale: 1 },
  HSV: { type: 12, channels: 3, scale: 1 },
  HLS: { type: 13, channels: 3, scale: 1 },
};
const floating = (k: { type: number; channels: number }): number => (1 << 22) | (k.type << 16) | (k.channels << 3) | 4;
const NO_OPTIMISING = 0x0100;
const BLACK_POINT = 0x2000;
const again = 'Ask the supplier for the profile again.';

let library: Promise<Lcms> | null = null;
/** The library; made anew after it failed once. */
async function lcms(): Promise<Lcms> {
  library ??= import('lcms-wasm').then((m) => m.instantiate({ print: () => {}, printErr: () => {} }));
  return library;
}

/** A profile's bytes, or one that every system knows. */
export type Side = Uint8Array | 'srgb' | 'lab' | 'xyz';

interface Open {
  handle: number;
  space: string;
  pcs: string;
  cls: string;
}
function open(lcms: Lcms, side: Side, where: string): Open {
  if (side === 'srgb') return { handle: lcms.cmsCreate_sRGBProfile(), space: 'RGB', pcs: 'XYZ', cls: 'display' };
  if (side === 'lab') return { handle: lcms.cmsCreateLab4Profile(null), space: 'Lab', pcs: 'Lab', cls: 'space' };
  if (side === 'xyz') return { handle: lcms.cmsCreateXYZProfile(), space: 'XYZ', pcs: 'XYZ', cls: 'space' };
  const header = iccHeader(side);
  const at = lcms._malloc(side.length);
  lcms.HEAPU8.set(side, at);
  const handle = lcms.ccall('cmsOpenProfileFromMem', 'number', ['number', 'number'], [at, side.length]);
  lcms._free(at);
  if (!handle) throw new Problem('icc-broken', 'The profile cannot be opened.', where, again);
  return { handle, space: header.space.trim(), pcs: header.pcs.trim(), cls: header.class };
}

export interface Transform {
  from: number;
  to: number;
  /** interleaved values in and out */ run(values: ArrayLike<number>): Float64Array;
  close(): void;
}

/**
 * From one side to the other. A device link or an abstract profile as `from` with `to` null is the whole transform.
 *
 * Without black point compensation means without: Little CMS puts it in by itself where the perceptual or the saturation
 * intent goes to a profile of version 4, so that such a profile is given to it as one of version 2. Tables and curves are
 * read the same way in both.
 */
export async function transform(
  from: Side,
  to: Side | null,
  intent: Intent = 'relative',
  blackPoint = false,
): Promise<Transform> {
  const isForced = !blackPoint && (intent === 'perceptual' || intent === 'saturation');
  if (!isForced || to === null) return directly(from, to, intent, blackPoint);
  if (to === 'lab') return directly(from, plainLab(), intent, false);
  if (typeof to !== 'string') return directly(from, asVersion2(to), intent, false);
  // these two have one rendering for all intents
  return chained(await directly(from, plainLab(), intent, false), await directly('lab', to, 'relative', false));
}

function chained(first: Transform, second: Transform): Transform {
  return {
    from: first.from,
    to: second.to,
    run: (values) => second.run(first.run(values)),
    close: () => {
      first.close();
      second.close();
    },
  };
}

/** Where the header has the version (ICC.1:2022, 7.2.4). */
const VERSION_AT = 8;

function asVersion2(profile: Uint8Array): Uint8Array {
  if ((profile[VERSION_AT] ?? 0) < 4) return profile;
  const copy = profile.slice();
  copy.set([2, 0x40], VERSION_AT);
  return copy;
}

let labOfVersion2: Uint8Array | null = null;
/** Lab as a profile of version 2 that changes nothing. */
const plainLab = (): Uint8Array =>
  (labOfVersion2 ??= asVersion2(
    writeTableProfile({
      class: 'abst',
      space: 'Lab ',
      pcs: 'Lab ',
      description: 'Lab',
      copyright: '',
      created: new Date(0),
      grid: 2,
      f: () => {},
    }),
  ));

async function directly(from: Side, to: Side | null, intent: Intent, blackPoint: boolean): Promise<Transform> {
  const engine = await lcms();
  const opened: number[] = [];
  const close = (): void => {
    for (const h of opened.splice(0)) engine.cmsCloseProfile(h);
  };
  try {
    const source = open(engine, from, 'the profile');
    opened.push(source.handle);
    const whole = source.cls === 'link';
    const target = to === null || whole ? null : open(engine, to, 'the profile to go to');
    if (target) opened.push(target.handle);
    const out = target ? target.space : source.pcs;
    const ka = kinds[source.space];
    const kb = kinds[out];
    if (!ka || !kb)
      throw new Problem(
        'icc-space',
        `Colors of ${ka ? out : source.space} are not transformed.`,
        'the header',
        'Choose a profile of RGB, gray, CMYK, Lab or XYZ.',
      );
    const handle = engine.cmsCreateTransform(
      source.handle,
      floating(ka),
      target?.handle ?? 0,
      floating(kb),
      intents[intent],
      NO_OPTIMISING | (blackPoint ? BLACK_POINT : 0),
    );
    if (!handle)
      throw new Problem(
        'icc-transform',
        'No transform can be made of this: the profile lacks what the intent needs, or its tables are damaged.',
        'its tags',
        again,
      );
    return {
      from: ka.channels,
      to: kb.channels,
      run: (values) => {
        const count = values.length / ka.channels;
        const ins = engine._malloc(Math.max(4, count * ka.channels * 4));
        const outs = engine._malloc(Math.max(4, count * kb.channels * 4));
        try {
          const numbers = new Float32Array(engine.HEAPU8.buffer, ins, count * ka.channels);
          for (let i = 0; i < numbers.length; i++) numbers[i] = values[i]! * ka.scale;
          engine.ccall(
            'cmsDoTransform',
            undefined,
            ['number', 'number', 'number', 'number'],
            [handle, ins, outs, count],
          );
          return Float64Array.from(
            new Float32Array(engine.HEAPU8.buffer, outs, count * kb.channels),
            (v) => v / kb.scale,
          );
        } finally {
          engine._free(ins);
          engine._free(outs);
        }
      },
      close: () => {
        engine.cmsDeleteTransform(handle);
        close();
      },
    };
  } catch (error) {
    close();
    if (error instanceof Problem) throw error;
    library = null; // what failed inside may have left it damaged
    throw new Problem('icc-broken', 'The profile cannot be read.', 'its tags', again);
  }
}

/** Values through a transform that is made for them alone. */
export async function once(
  from: Side,
  to: Side | null,
  values: ArrayLike<number>,
  intent: Intent = 'relative',
  blackPoint = false,
): Promise<Float64Array> {
  const made = await transform(from, to, intent, blackPoint);
  try {
    return made.run(values);
  } finally {
    made.close();
  }
}
