/** The held items that an arrival is compared with, brought from the database in a few queries. */
import { must } from '@/core/must';
import { fileNameOf } from '@/core/paths';
import { fingerprintOfBytes } from '@/core/look/fingerprint';
import { beyondEffect, designName } from '@/core/pack/likeness';
import { HeldIndex, type Held, type Incoming } from '@/core/pack/propose';
import type { Settings } from '@/core/preset/kinds';
import { bytesOf, hex } from '../blobs/service';
import type { Sql } from '../db/pool';
import * as q from './queries';

const held = (held: q.HeldRow): Held => ({
  itemId: held.item_id,
  versionId: held.version_id,
  kind: held.kind,
  format: held.format,
  title: held.title,
  aliases: held.aliases,
  headings: held.headings,
  fileName: held.file_name,
  sha: hex(held.sha256),
  content: held.content_sha256 ? hex(held.content_sha256) : null,
  internalId: held.internal_id,
  fingerprint: held.fingerprint ? fingerprintOfBytes(held.fingerprint) : null,
  outside: beyondEffect(held.kind, held.facts),
  settings: held.kind === 'preset' ? ((held.facts.settings ?? {}) as Settings) : null,
  variant: held.variant,
  newest: held.newest,
});

export const incoming = (entry: q.EntryRow): Incoming => ({
  id: entry.id,
  path: entry.path,
  kind: entry.kind,
  format: entry.format,
  title: entry.title,
  headings: entry.headings,
  sha: hex(must(entry.sha256)),
  content: entry.content_sha256 ? hex(entry.content_sha256) : null,
  internalId: entry.internal_id,
  fingerprint: entry.fingerprint ? fingerprintOfBytes(entry.fingerprint) : null,
  outside: beyondEffect(entry.kind, entry.facts),
  settings: entry.kind === 'preset' ? ((entry.facts.settings ?? {}) as Settings) : null,
});

const LIKE_AT_MOST = 400;

export async function heldFor(sql: Sql, entries: readonly Incoming[]): Promise<HeldIndex> {
  const unique = <T>(list: (T | null)[]): T[] => [...new Set(list.filter((x): x is T => x !== null))];
  const direct = await q.candidates(sql, {
    shas: unique(entries.map((e) => e.sha)).map(bytesOf),
    contents: unique(entries.map((e) => e.content)).map(bytesOf),
    identities: unique(entries.map((e) => e.internalId || null)),
    bases: unique(entries.map((e) => designName(e.title).base || null)),
    files: unique(entries.map((e) => fileNameOf(e.path))),
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
  for (const row of [...direct, ...like, ...all])
    if (!known.has(row.version_id)) {
      known.add(row.version_id);
      out.push(held(row));
    }
  return new HeldIndex(out);
}
