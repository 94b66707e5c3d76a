/** What looks and presets come as for threads, and what they do to pictures. */
import { readAnyLook } from '@/core/icc/look';
import { applyLook } from '@/core/look/apply';
import { tableUnder, type AssumedEncoding } from '@/core/look/assumed-encoding';
import { assumedEncoding, type Look } from '@/core/look/look';
import { tableOfProgram } from '@/core/look/program';
import { resized } from '@/core/look/resample';
import { applyPreset, type CalledLook, type PresetEffect } from '@/core/preset/apply';
import { bake, split, type ClassOverrides } from '@/core/preset/bake';
import type { Settings } from '@/core/preset/kinds';

/** A look by its file, or a preset by its settings. */
export type TableSource =
  | { kind: 'look'; bytes: Uint8Array; encoding: AssumedEncoding | null }
  | {
      kind: 'preset';
      title: string;
      settings: Settings;
      classes: ClassOverrides;
      /** the look that it calls, where one is bound to its name */ called: CalledSource | null;
    };
/** The file of a look that a preset calls. */
export interface CalledSource {
  bytes: Uint8Array;
  encoding: AssumedEncoding | null;
  /** a factor */ strength: number;
}

export type PresetSource = Extract<TableSource, { kind: 'preset' }>;

const wholeLook = async ({ bytes, encoding }: Omit<CalledSource, 'strength'>): Promise<Look> =>
  tableUnder(tableOfProgram(await readAnyLook(bytes)), encoding ?? assumedEncoding);

export const calledLook = async (called: CalledSource | null): Promise<CalledLook | null> =>
  called && { look: await wholeLook(called), strength: called.strength };

export const PREVIEW_POINTS = 33;

/** The look for sRGB values; with `points`, a table of no more than so many points an axis. */
export async function look({ source, points }: { source: TableSource; points: number }): Promise<Look> {
  if (source.kind === 'preset') {
    const called = await calledLook(source.called);
    const size = points >= 2 ? points : PREVIEW_POINTS;
    return bake(source.settings, size, source.title, { overrides: source.classes, called }).look;
  }
  const whole = await wholeLook(source);
  return points >= 2 && whole.kind === '3d' && whole.size > points ? resized(whole, points) : whole;
}

/** What a preset does, evaluated directly. */
export const presetOf = async (source: PresetSource): Promise<PresetEffect> => ({
  settings: split(source.settings, source.classes).kept,
  look: await calledLook(source.called),
});

/** A picture under a look or a preset, evaluated with all points that it has. */
export const ourPicture = async ({
  source,
  given,
}: {
  source: TableSource;
  /** RGBA of 8 bits */ given: Uint8Array;
}): Promise<Uint8ClampedArray> => {
  const ours = new Uint8ClampedArray(given.length);
  if (source.kind === 'preset') applyPreset(await presetOf(source), 1, given, ours);
  else applyLook(await look({ source, points: 0 }), 1, given, ours);
  return ours;
};
