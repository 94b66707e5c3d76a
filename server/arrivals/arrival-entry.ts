/** What a file of an arrival becomes as a row of its table. Without database: it runs in the reading thread. */
import { bytesOfFingerprint } from '@/core/look/fingerprint';
import { mismatches } from '@/core/pack/likeness';
import { isTakeable } from '@/core/recognise';
import { Problem } from '@/core/problem';
import { fileEffect, noEffect, presetEffect, tableEffect, type Effect } from '../copies/effect-of';
import type { Inspected } from './inspect';
import type { NewEntry, Outcome } from './queries';

/** `take`: its bytes are to be kept. */
export interface Entry {
  row: NewEntry;
  take: boolean;
}
type KeptOut = Exclude<Inspected, { type: 'entry' }>;
type Found = KeptOut | Omit<Extract<Inspected, { type: 'entry' }>, 'sha256'>;

const emptyRow: Omit<NewEntry, 'path' | 'size'> = {
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

type Known = Extract<Found, { type: 'entry' }>;

/** What it does to colors; nothing where that cannot be told, which is for a person to see. */
async function effectOf({ kind, facts, look, bytes }: Known): Promise<Effect> {
  if (kind === 'preset') return presetEffect(facts);
  if (look) return tableEffect(look);
  try {
    return await fileEffect(kind, bytes);
  } catch (error) {
    if (error instanceof Problem) return noEffect;
    throw error;
  }
}

function outcomeOf(kind: Known['kind']): Outcome {
  if (isTakeable(kind)) return 'new';
  return kind === 'frame' || kind === 'descriptor' || kind === 'unknown' ? kind : 'document';
}

/** To what a file limits itself, which its item will be limited to as well; empty where it does not. */
function limitsIn({ fileScope }: Record<string, unknown>): string {
  if (typeof fileScope !== 'object' || fileScope === null) return '';
  const { input, result, cameras } = fileScope as Record<string, unknown>;
  const limits = [input, result, ...(Array.isArray(cameras) ? (cameras as unknown[]) : [])];
  const words = limits.filter((limit): limit is string => typeof limit === 'string' && limit !== '');
  return words.length ? `it limits itself to ${words.join(', ')}` : '';
}

async function knownRow(found: Known, sha: string | null): Promise<Partial<NewEntry>> {
  const effect = await effectOf(found);
  const { kind, facts } = found;
  return {
    sha256: sha,
    outcome: outcomeOf(kind),
    kind,
    format: found.format,
    title: found.title.slice(0, 200),
    headings: found.headings.slice(0, 4),
    needs: found.needs,
    facts,
    selvedge: effect.selvedge,
    note: [found.note, limitsIn(facts)].filter(Boolean).join('; '),
    confidence: found.confidence,
    evidence: found.evidence,
    mismatches: isTakeable(kind) ? mismatches(found.path, facts) : [],
    internal_id: typeof facts.internalId === 'string' ? facts.internalId : '',
    content: effect.content?.toString('hex') ?? null,
    fingerprint: effect.fingerprint ? Buffer.from(bytesOfFingerprint(effect.fingerprint)).toString('hex') : null,
  };
}

/** Of a file that is not taken, and why. */
export function entryKeptOut(found: KeptOut): Entry {
  const { path } = found;
  if (found.type === 'ignored') return { row: { ...emptyRow, path, size: found.size, note: found.why }, take: false };
  const { problem, size } = found;
  const refused = { outcome: 'refused' as const, note: problem.message, problem: problem.toJSON() };
  return { row: { ...emptyRow, path, size, ...refused }, take: false };
}

/** Licences and read-me files are kept to be read, and what no reader knows may be an editor's support file; larger ones are not such. */
const MOST_PAPER_BYTES = 20 * 2 ** 20;

const isKept = ({ kind, bytes }: Known): boolean =>
  isTakeable(kind) ||
  kind === 'frame' ||
  kind === 'descriptor' ||
  kind === 'chart' ||
  ((kind === 'document' || kind === 'unknown') && bytes.length <= MOST_PAPER_BYTES);

/** @param sha the hash of its bytes, in hexadecimal */
export async function entryOf(found: Found, sha = ''): Promise<Entry> {
  if (found.type !== 'entry') return entryKeptOut(found);
  const take = isKept(found);
  const row = {
    ...emptyRow,
    path: found.path,
    size: found.bytes.length,
    ...(await knownRow(found, take ? sha : null)),
  };
  return { take, row };
}
