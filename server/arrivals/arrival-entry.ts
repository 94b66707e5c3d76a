/** What a file of an arrival becomes as a row of its table. Without database: it runs in the reading thread. */
import { bytesOfFingerprint } from '@/core/look/fingerprint';
import { mismatches } from '@/core/pack/likeness';
import { isTakeable } from '@/core/recognise/index';
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
export function entryOf(found: Found, sha = ''): Entry {
  const row: NewEntry = {
    path: found.path,
    size: found.type === 'entry' ? found.bytes.length : found.size,
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
  if (found.type === 'ignored') return { row: { ...row, note: found.why }, take: false };
  if (found.type === 'refused')
    return {
      row: { ...row, outcome: 'refused', note: found.problem.message, problem: found.problem.toJSON() },
      take: false,
    };
  const effect = found.kind === 'preset' ? presetEffect(found.facts) : found.look ? tableEffect(found.look) : null;
  const frame = found.kind === 'frame';
  const take = isTakeable(found.kind) || frame || found.kind === 'descriptor';
  return {
    take,
    row: {
      ...row,
      sha256: take ? sha : null,
      outcome: isTakeable(found.kind)
        ? 'new'
        : frame
          ? 'frame'
          : found.kind === 'descriptor'
            ? 'descriptor'
            : found.kind === 'unknown'
              ? 'unknown'
              : 'document',
      kind: found.kind,
      format: found.format,
      title: found.title.slice(0, 200),
      headings: found.headings.slice(0, 4),
      needs: found.needs,
      facts: found.facts,
      selvedge: effect?.selvedge ?? null,
      note: found.note,
      confidence: found.confidence,
      evidence: found.evidence,
      mismatches: isTakeable(found.kind) ? mismatches(found.path, found.facts) : [],
      internal_id: typeof found.facts.internalId === 'string' ? found.facts.internalId : '',
      content: effect?.content?.toString('hex') ?? null,
      fingerprint: effect?.fingerprint ? Buffer.from(bytesOfFingerprint(effect.fingerprint)).toString('hex') : null,
    },
  };
}
