/** Items with the same effect: groups to look at, merged into one or marked as meant. */
import type { BodyOf } from '@/core/api';
import { itemEndpoints } from '@/core/api/items';
import { must } from '@/core/must';
import {
  bytesOfFingerprint,
  fingerprintDistance,
  fingerprintOfBytes,
  nearPairs,
  type Tolerance,
} from '@/core/look/fingerprint';
import { beyondEffect } from '@/core/pack/likeness';
import { Problem } from '@/core/problem';
import { pool, transaction, type Sql } from '../db/pool';
import { record } from '../activity/queries';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../input';
import { copyTolerance } from '../studio/service';
import { effectOf } from './effect';
import * as d from './queries';
import * as q from '../items/queries';
import { spinesOf, type SpineRow } from '../search/queries';

export interface CopyGroup {
  items: SpineRow[];
  mean: number;
  max: number;
}

/** Pairs of identifiers whose fingerprints are within the tolerance, presets only where what no table carries is the same. */
export function pairsOf(
  rows: readonly { id: string; group: string; fingerprint: Buffer }[],
  tolerance?: Tolerance,
): [number, number][] {
  const by = new Map<string, number[]>();
  const out: [number, number][] = [];
  rows.forEach((row, i) => {
    const members = by.get(row.group);
    if (members) members.push(i);
    else by.set(row.group, [i]);
  });
  for (const list of by.values()) {
    if (list.length < 2) continue;
    const all = new Int16Array(list.length * 192);
    list.forEach((i, k) => all.set(fingerprintOfBytes(must(rows[i]).fingerprint), k * 192));
    for (const [a, b] of nearPairs(all, list.length, tolerance)) out.push([must(list[a]), must(list[b])]);
  }
  return out;
}

const printed = ({ id, kind, format, facts, fingerprint }: d.PrintRow) => ({
  id,
  group: `${kind} ${kind === 'preset' ? format : ''} ${beyondEffect(kind, facts)}`,
  fingerprint,
});

const pairKey = (one: string, other: string): string => [one, other].sort().join(' ');

/** Whether somebody said of two items that they are meant to be two. */
async function meantTwice(sql: Sql): Promise<(one: string, other: string) => boolean> {
  const pairs = new Set((await d.meantPairs(sql)).map(({ item_a, item_b }) => pairKey(item_a, item_b)));
  return (one, other) => pairs.has(pairKey(one, other));
}

/** Of these items: which two do the same, within what the studio takes for a copy, and are not meant. */
export async function nearAmong(sql: Sql, items: readonly string[]): Promise<(one: string, other: string) => boolean> {
  if (items.length < 2) return () => false;
  const rows = (await d.prints(sql, items)).map(printed);
  const meant = await meantTwice(sql);
  const pairs = pairsOf(rows, await copyTolerance(sql)).map(([a, b]) => [must(rows[a]).id, must(rows[b]).id] as const);
  const near = new Set(pairs.filter(([a, b]) => !meant(a, b)).map(([a, b]) => pairKey(a, b)));
  return (one, other) => near.has(pairKey(one, other));
}

/** Groups of items that do the same, largest first; pairs that are meant are left out. */
export async function copies(
  person: Person,
  most = 60,
): Promise<{ groups: CopyGroup[]; total: number; within: Tolerance }> {
  allow(person, 'view');
  const sql = pool();
  const within = await copyTolerance(sql);
  const rows = (await d.prints(sql)).map(printed);
  const meant = await meantTwice(sql);
  const parent = rows.map((_, i) => i);
  const find = (i: number): number => {
    while (parent[i] !== i) {
      parent[i] = must(parent[must(parent[i])]);
      i = must(parent[i]);
    }
    return i;
  };
  for (const [a, b] of pairsOf(rows, within)) {
    if (!meant(must(rows[a]).id, must(rows[b]).id)) parent[find(a)] = find(b);
  }
  const groups = new Map<number, number[]>();
  rows.forEach((_, i) => {
    const r = find(i);
    const group = groups.get(r);
    if (group) group.push(i);
    else groups.set(r, [i]);
  });
  const found = [...groups.values()].filter((g) => g.length > 1).sort((a, b) => b.length - a.length);
  const shown = found.slice(0, most);
  const out: CopyGroup[] = [];
  for (const members of shown) {
    const first = fingerprintOfBytes(must(rows[must(members[0])]).fingerprint);
    const far = members.slice(1).map((i) => fingerprintDistance(first, fingerprintOfBytes(must(rows[i]).fingerprint)));
    out.push({
      items: await spinesOf(
        sql,
        person.id,
        members.slice(0, 40).map((i) => must(rows[i]).id),
      ),
      mean: Math.max(...far.map((f) => f.mean)),
      max: Math.max(...far.map((f) => f.max)),
    });
  }
  return { groups: out, total: found.length, within };
}

/**
 * Merges items into one that stays: their names become other names of it, their versions stand beside its own as merged
 * ones, ribbons, verdicts, placements and lineage go on with them. The merged items are archived and say into what they went.
 */
export async function mergeItems(person: Person, input: BodyOf<'POST /api/copies'>): Promise<{ merged: number }> {
  allow(person, 'item.edit');
  const merging = checked(itemEndpoints['POST /api/copies'].body, input);
  return transaction(async (sql) => {
    const rows = await q.itemsByIds(
      sql,
      [merging.keep, ...merging.others.filter((o) => o !== merging.keep)],
      person.id,
      true,
    );
    const keep = rows.find((r) => r.id === merging.keep);
    const others = rows.filter((r) => r.id !== merging.keep);
    if (!keep || !others.length)
      throw new Problem('not-found', 'One of the items is not there any more.', merging.keep, 'Reload the page.');
    const odd = others.find((o) => o.kind !== keep.kind) ?? rows.find((r) => r.archived_at);
    if (odd)
      throw new Problem(
        'merge-kind',
        odd.archived_at
          ? `${odd.title} is in the archive.`
          : `${odd.title} is a ${odd.kind}, and ${keep.title} a ${keep.kind}.`,
        odd.title,
        'Choose items of one kind that stand on the shelves.',
      );
    for (const item of others) {
      await d.takeVersions(sql, item.id, keep.id, item.title);
      await d.takeRibbons(sql, item.id, keep.id);
      await d.takeVerdicts(sql, item.id, keep.id);
      await d.retarget(sql, item.id, keep.id);
      await record(
        sql,
        actorOf(person),
        'item',
        item.id,
        'merged away',
        { title: item.title },
        { into: keep.title, item: keep.id },
      );
    }
    const aliases = [...new Set([...keep.aliases, ...others.flatMap((o) => [o.title, ...o.aliases])])].filter(
      (a) => a !== keep.title,
    );
    const tags = [...new Set([...keep.tags, ...others.flatMap((o) => o.tags)])];
    await q.updateItem(sql, keep.id, {
      aliases,
      tags,
      licence_id: keep.licence_id ?? others.find((o) => o.licence_id)?.licence_id ?? null,
    });
    await record(
      sql,
      actorOf(person),
      'item',
      keep.id,
      'merged',
      { aliases: keep.aliases },
      { aliases, from: others.map((o) => o.title) },
    );
    return { merged: others.length };
  });
}

/** These items do the same, and are meant to: they are not shown as copies again. */
export async function markMeant(person: Person, input: BodyOf<'POST /api/copies/meant'>): Promise<void> {
  allow(person, 'item.edit');
  const { items } = checked(itemEndpoints['POST /api/copies/meant'].body, input);
  const sorted = [...new Set(items)].sort();
  await transaction(async (sql) => {
    for (let i = 0; i < sorted.length; i++)
      for (let j = i + 1; j < sorted.length; j++) await d.insertMeant(sql, must(sorted[i]), must(sorted[j]), person.id);
    for (const id of sorted)
      await record(sql, actorOf(person), 'item', id, 'meant as it is', null, { with: sorted.length - 1 });
  });
}

/** Fills in what versions from before lack: fingerprints, normalised content, threads. */
export async function fillEffects(): Promise<number> {
  const sql = pool();
  let done = 0;
  for (;;) {
    const rows = await d.withoutEffect(sql, 50);
    if (!rows.length) return done;
    for (const row of rows) {
      const effect = await effectOf(sql, row.kind, row.sha256, row.facts);
      await d.setEffect(
        sql,
        row.id,
        effect.content ?? Buffer.alloc(0),
        effect.fingerprint ? Buffer.from(bytesOfFingerprint(effect.fingerprint)) : null,
        effect.selvedge,
      );
      done++;
    }
  }
}
