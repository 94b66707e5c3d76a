/** What an item does, for comparing: its normalised content, its fingerprint, its threads. Without database: it runs in threads. */
import { createHash } from 'node:crypto';
import { profileOf, readDcp } from '@/core/camera/dcp';
import { DAYLIGHT, LAMPLIGHT, renderedColors, renderedValues } from '@/core/camera/effect';
import { decodeSrgb } from '@/core/color/transfer';
import { isIcc } from '@/core/icc/header';
import { inputTable } from '@/core/icc/input';
import { readIccLook } from '@/core/icc/look';
import { fingerprint } from '@/core/look/fingerprint';
import type { Look } from '@/core/look/look';
import { readProgram, tableOfProgram } from '@/core/look/program';
import { sampler, type Evaluate } from '@/core/look/sample';
import { selvedge } from '@/core/look/selvedge';
import { canonicalPreset } from '@/core/pack/likeness';
import { split, type ClassOverrides } from '@/core/preset/bake';
import type { Settings } from '@/core/preset/kinds';
import { compile } from '@/core/preset/render';

export interface Effect {
  content: Buffer | null;
  fingerprint: Int16Array | null;
  selvedge: [string, string][] | null;
}
export const noEffect: Effect = { content: null, fingerprint: null, selvedge: null };

/** ICC profiles are compared at so many points an axis. */
const ICC_POINTS = 33;

const of = (content: Buffer | null, f: Evaluate): Effect => ({
  content,
  fingerprint: fingerprint(f),
  selvedge: selvedge(f),
});

/** A table's content whatever the file: kind, size, domain and values as 32-bit floats. */
export function tableEffect(look: Look): Effect {
  const hash = createHash('sha256')
    .update(JSON.stringify([look.kind, look.size, look.domain.min, look.domain.max]))
    .update(new Uint8Array(look.table.buffer, look.table.byteOffset, look.table.byteLength));
  return of(hash.digest(), sampler(look));
}

export function presetEffect(facts: Record<string, unknown>): Effect {
  return of(
    createHash('sha256').update(canonicalPreset(facts)).digest(),
    compile(split((facts.settings ?? {}) as Settings, (facts.classes ?? {}) as ClassOverrides).kept),
  );
}

/** The threads are colors as the profile's camera sees them; profiles are compared by values of their camera, in two lights. */
function profileEffect(bytes: Uint8Array): Effect {
  const profile = profileOf(readDcp(bytes));
  return {
    content: null,
    fingerprint: fingerprint(renderedValues(profile, DAYLIGHT), renderedValues(profile, LAMPLIGHT)),
    selvedge: selvedge(renderedColors(profile)),
  };
}

/** An input profile says nothing of how its camera sees colors: threads, too, are values of the camera. */
async function inputEffect(bytes: Uint8Array): Promise<Effect> {
  const table = sampler(await inputTable(bytes, [1, 1, 1], ICC_POINTS));
  return of(null, (r, g, b, out, at) => {
    table(Math.sqrt(decodeSrgb(r)), Math.sqrt(decodeSrgb(g)), Math.sqrt(decodeSrgb(b)), out, at);
  });
}

async function lookEffect(bytes: Uint8Array): Promise<Effect> {
  return tableEffect(tableOfProgram(isIcc(bytes) ? await readIccLook(bytes, ICC_POINTS) : readProgram(bytes)));
}

/** Of a file by its kind; what does nothing to colors has none. Throws a Problem for a file that cannot be rendered. */
export async function fileEffect(kind: string, bytes: Uint8Array): Promise<Effect> {
  if (kind === 'look') return lookEffect(bytes);
  if (kind === 'camera-profile') return isIcc(bytes) ? inputEffect(bytes) : profileEffect(bytes);
  return noEffect;
}
