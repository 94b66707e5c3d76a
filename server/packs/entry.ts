/** What a file of an arrival becomes as a row of its table. Without database: it runs in the reading thread. */
import { bytesOfFingerprint } from '@/core/look/fingerprint';
import { mismatches } from '@/core/pack/likeness';
import { isTakeable } from '@/core/pack/recognise';
import { presetEffect, tableEffect } from '../items/effect';
import type { Inspected } from './inspect';
import type { NewEntry } from './queries';

/** `take`: its bytes are to be kept. */
export interface Entry {
  row: NewEntry;
  take: boolean;
}
type Found = Exclude<Inspected, { type: 'entry' }> | Omit<Extract<Inspected, { type: 'entry' }>, 'sha256'>;

/** `sha`: the hash of its bytes, in hexadecimal. */
export function entryOf(e: Found, sha = ''): Entry {
  const row: NewEntry = {
    path: e.path,
    size: e.type === 'entry' ? e.bytes.length : e.size,
    sha256: null,
    outcome: 'ignored',
    kind: '',
    format: '',
    title: '',
    headings: [],
    needs: [],
    facts: {},
    selvedge: null,
    note: '',
    problem: null,
    confidence: 1,
    evidence: [],
    mismatches: [],
    internal_id: '',
    content: null,
    fingerprint: null,
  };
  if (e.type === 'ignored') return { row: { ...row, note: e.why }, take: false };
  if (e.type === 'refused')
    return { row: { ...row, outcome: 'refused', note: e.problem.message, problem: e.problem.toJSON() }, take: false };
  const effect = e.kind === 'preset' ? presetEffect(e.facts) : e.look ? tableEffect(e.look) : null;
  const frame = e.kind === 'frame';
  const take = isTakeable(e.kind) || frame || e.kind === 'descriptor';
  return {
    take,
    row: {
      ...row,
      sha256: take ? sha : null,
      outcome: isTakeable(e.kind)
        ? 'new'
        : frame
          ? 'frame'
          : e.kind === 'descriptor'
            ? 'descriptor'
            : e.kind === 'unknown'
              ? 'unknown'
              : 'document',
      kind: e.kind,
      format: e.format,
      title: e.title.slice(0, 200),
      headings: e.headings.slice(0, 4),
      needs: e.needs,
      facts: e.facts,
      selvedge: effect?.selvedge ?? null,
      note: e.note,
      confidence: e.confidence,
      evidence: e.evidence,
      mismatches: isTakeable(e.kind) ? mismatches(e.path, e.facts) : [],
      internal_id: typeof e.facts.internalId === 'string' ? e.facts.internalId : '',
      content: effect?.content?.toString('hex') ?? null,
      fingerprint: effect?.fingerprint ? Buffer.from(bytesOfFingerprint(effect.fingerprint)).toString('hex') : null,
    },
  };
}
