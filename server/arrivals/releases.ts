/** A pack that is known from before: release against release. */
import { must } from '@/core/must';
import { folderOf } from '@/core/paths';
import { fingerprintDistance, fingerprintOfBytes } from '@/core/look/fingerprint';
import { settingChanges } from '@/core/pack/likeness';
import { isReleaseOf, pairReleases, type ReleaseFile } from '@/core/pack/release';
import type { Settings } from '@/core/preset/kinds';
import type { Sql } from '../db/pool';
import { pool } from '../db/pool';
import { allow, type Person } from '../people/roles';
import { hex } from '../blobs/service';
import * as q from './queries';

/** The newest pack of which this arrival seems a release. */
export async function matchPack(sql: Sql, arrivalId: string): Promise<void> {
  const arrival = must(await q.arrivalById(sql, arrivalId));
  const entries = await q.entriesOf(sql, arrivalId);
  const size = entries.filter((e) => ['new', 'version', 'variant', 'duplicate'].includes(e.outcome)).length;
  const like = await q.packsLike(sql, arrivalId);
  const found = like.find((pack) => isReleaseOf(pack, { name: arrival.name, members: size }, pack.shared));
  await q.arrivalPrevious(sql, arrivalId, found?.id ?? null);
}

export interface Change {
  path: string;
  title: string;
  itemId: string | null;
  what: 'added' | 'changed' | 'gone' | 'same';
  meaning: string;
}
export interface ReleaseView {
  pack: { id: string; name: string; release: string; supplier: string; at: string; arrivalId: string };
  changes: Change[];
}

type Entry = q.EntryRow & { sha256: Buffer };
type Member = Awaited<ReturnType<typeof q.membersOf>>[number];
type Now = ReleaseFile & { entry: Entry };
type Before = ReleaseFile & { member: Member };

const canBeOfARelease = (entry: q.EntryRow): entry is Entry =>
  ['new', 'version', 'variant', 'duplicate'].includes(entry.outcome) && entry.sha256 !== null;

const asNow = (entry: Entry): Now => ({
  path: entry.path,
  kind: entry.kind,
  sha: hex(entry.sha256),
  itemId: entry.target_item_id,
  entry,
});
const asBefore = (member: Member): Before => ({
  path: member.path,
  kind: member.kind,
  sha: hex(member.sha256),
  itemId: member.item_id,
  member,
});

function changeOf({ entry, sha }: Now, before: Before | undefined): Change {
  const { path, title } = entry;
  if (!before) {
    const meaning = entry.outcome === 'duplicate' ? 'held from elsewhere' : entry.note;
    return { path, title, itemId: entry.item_id, what: 'added', meaning };
  }
  const { member } = before;
  const same = before.sha === sha;
  return {
    path,
    title,
    itemId: member.item_id,
    what: same ? 'same' : 'changed',
    meaning: same ? sameWords(member.path, path) : meaning(member, entry),
  };
}

const sameWords = (before: string, now: string): string =>
  folderOf(before) === folderOf(now) ? 'unchanged' : `unchanged, was at ${before}`;

const goneWords = ({ member: { path, title, item_id: itemId } }: Before): Change => ({
  path,
  title,
  itemId,
  what: 'gone',
  meaning: 'no longer in the pack; what is held of it stays',
});

/** What was added, changed and gone against the release before, and what each change means. */
export async function compareRelease(person: Person, arrival: q.ArrivalRow): Promise<ReleaseView | null> {
  allow(person, 'arrival.read');
  if (!arrival.previous_pack_id) return null;
  const sql = pool();
  const pack = await q.packById(sql, arrival.previous_pack_id);
  if (!pack || pack.arrival_id === arrival.id) return null;
  const entries = (await q.entriesOf(sql, arrival.id)).filter(canBeOfARelease).map(asNow);
  const before = (await q.membersOf(sql, pack.id)).map(asBefore);
  const pairs = pairReleases(entries, before);
  const stays = new Set(pairs.values());
  const gone = before.filter((file) => !stays.has(file));
  const changes = [...entries.map((file) => changeOf(file, pairs.get(file))), ...gone.map(goneWords)];
  return {
    pack: {
      id: pack.id,
      name: pack.name,
      release: pack.release,
      supplier: pack.supplier,
      at: pack.created_at.toISOString(),
      arrivalId: pack.arrival_id,
    },
    changes,
  };
}

function meaning(
  old: { fingerprint: Buffer | null; facts: Record<string, unknown>; kind: string },
  entry: q.EntryRow,
): string {
  const out: string[] = [];
  if (entry.kind === 'preset') {
    const changes = settingChanges((old.facts.settings ?? {}) as Settings, (entry.facts.settings ?? {}) as Settings);
    out.push(
      changes.length
        ? `${changes.length} ${changes.length === 1 ? 'setting' : 'settings'} changed: ${changes
            .slice(0, 4)
            .map((x) => x.title.toLowerCase())
            .join(', ')}${changes.length > 4 ? ' …' : ''}`
        : 'the same settings',
    );
  }
  if (typeof old.facts.size === 'number' && old.facts.size !== entry.facts.size)
    out.push(`${old.facts.size} → ${String(entry.facts.size)} points`);
  if (old.fingerprint && entry.fingerprint) {
    const distance = fingerprintDistance(fingerprintOfBytes(old.fingerprint), fingerprintOfBytes(entry.fingerprint));
    out.push(
      distance.max < 0.05
        ? 'the same effect'
        : `mean ΔE00 ${distance.mean.toFixed(2)}, at most ${distance.max.toFixed(1)}`,
    );
  }
  return out.join('; ') || 'other content';
}
