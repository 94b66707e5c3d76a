/** What an item does, for comparing: its normalised content and its fingerprint. */
import { createHash } from 'node:crypto';
import { fingerprint } from '@/core/look/fingerprint';
import type { Look } from '@/core/look/look';
import { readAnyLook } from '@/core/icc/look';
import { tableOfProgram } from '@/core/look/program';
import { sampler, type Evaluate } from '@/core/look/sample';
import { selvedge } from '@/core/look/selvedge';
import { canonicalPreset } from '@/core/pack/likeness';
import { split, type ClassOverrides } from '@/core/preset/bake';
import type { Settings } from '@/core/preset/kinds';
import { compile } from '@/core/preset/render';
import { Problem } from '@/core/problem';
import { getBlob } from '../blobs/service';
import type { Sql } from '../db/pool';

export interface Effect {
  content: Buffer | null;
  fingerprint: Int16Array | null;
  selvedge: [string, string][] | null;
}
const none: Effect = { content: null, fingerprint: null, selvedge: null };

const of = (content: Buffer, f: Evaluate): Effect => ({ content, fingerprint: fingerprint(f), selvedge: selvedge(f) });

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

/** Of a version by its kind; what has no table or settings has none. */
export async function effectOf(sql: Sql, kind: string, sha: Buffer, facts: Record<string, unknown>): Promise<Effect> {
  if (kind === 'preset') return presetEffect(facts);
  if (kind !== 'look') return none;
  try {
    return tableEffect(tableOfProgram(await readAnyLook(new Uint8Array(await getBlob(sha, sql)))));
  } catch (error) {
    if (error instanceof Problem) return none;
    throw error;
  }
}
