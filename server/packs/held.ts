/** The held items that an arrival is compared with, brought from the database in a few queries. */
import { fingerprintOfBytes } from '@/core/look/fingerprint';
import { designName, outsideTable } from '@/core/pack/likeness';
import { HeldIndex, type Held, type Incoming } from '@/core/pack/propose';
import type { Settings } from '@/core/preset/kinds';
import { bytesOf, hex } from '../blobs/service';
import type { Sql } from '../db/pool';
import * as q from './queries';

const held = (r: q.HeldRow): Held => ({
  itemId: r.item_id,
  versionId: r.version_id,
  kind: r.kind,
  format: r.format,
  title: r.title,
  aliases: r.aliases,
  headings: r.headings,
  fileName: r.file_name,
  sha: hex(r.sha256),
  content: r.content_sha256 ? hex(r.content_sha256) : null,
  internalId: r.internal_id,
  fingerprint: r.fingerprint ? fingerprintOfBytes(r.fingerprint) : null,
  outside: r.kind === 'preset' ? outsideTable(r.facts) : '',
  settings: r.kind === 'preset' ? ((r.facts.settings ?? {}) as Settings) : null,
  newest: r.newest,
});

export const incoming = (e: q.EntryRow): Incoming => ({
  id: e.id,
  path: e.path,
  kind: e.kind,
  format: e.format,
  title: e.title,
  headings: e.headings,
  sha: hex(e.sha256!),
  content: e.content_sha256 ? hex(e.content_sha256) : null,
  internalId: e.internal_id,
  fingerprint: e.fingerprint ? fingerprintOfBytes(e.fingerprint) : null,
  outside: e.kind === 'preset' ? outsideTable(e.facts) : '',
  settings: e.kind === 'preset' ? ((e.facts.settings ?? {}) as Settings) : null,
});

const LIKE_AT_MOST = 400;

export async function heldFor(sql: Sql, entries: readonly Incoming[]): Promise<HeldIndex> {
  const unique = <T>(list: (T | null)[]): T[] => [...new Set(list.filter((x): x is T => x !== null))];
  const direct = await q.candidates(sql, {
    shas: unique(entries.map((e) => e.sha)).map(bytesOf),
    contents: unique(entries.map((e) => e.content)).map(bytesOf),
    identities: unique(entries.map((e) => e.internalId || null)),
    bases: unique(entries.map((e) => designName(e.title).base || null)),
    files: unique(entries.map((e) => e.path.split('/').pop()!)),
  });
  const presets = entries.filter((e) => e.kind === 'preset');
  const like =
    presets.length && presets.length <= LIKE_AT_MOST
      ? await q.presetsLike(sql, unique(presets.map((e) => e.title)))
      : [];
  const kinds = unique(entries.filter((e) => e.fingerprint).map((e) => e.kind));
  const all = kinds.length ? await q.prints(sql, kinds) : [];
  const known = new Set<string>();
  const out: Held[] = [];
  for (const r of [...direct, ...like, ...all])
    if (!known.has(r.version_id)) {
      known.add(r.version_id);
      out.push(held(r));
    }
  return new HeldIndex(out);
}
