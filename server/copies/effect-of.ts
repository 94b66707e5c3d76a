/** What an item does, for comparing: its normalised content and its fingerprint. Without database: it runs in threads. */
import { createHash } from 'node:crypto';
import { fingerprint } from '@/core/look/fingerprint';
import type { Look } from '@/core/look/look';
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
