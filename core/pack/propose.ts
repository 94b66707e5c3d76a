/**
 * What an incoming file is to what is held: new, a new version, a variant of a design, a duplicate, and by what. Pure: the
 * caller brings the held items that could matter.
 */
import { near, nearPairs, tolerance, type Tolerance } from '../look/fingerprint';
import type { Settings } from '../preset/kinds';
import { baseName } from './recognise';
import { designName, nameLikeness, settingLikeness, foldName } from './likeness';

export interface Incoming {
  id: number;
  path: string;
  kind: string;
  format: string;
  title: string;
  headings: string[];
  sha: string;
  content: string | null;
  internalId: string;
  fingerprint: Int16Array | null;
  /** what a table cannot carry, in canonical form: only alike in that can two presets do the same */ outside: string;
  settings: Settings | null;
}
export interface Held {
  itemId: string;
  versionId: string;
  kind: string;
  format: string;
  title: string;
  aliases: string[];
  headings: string[];
  fileName: string;
  sha: string;
  content: string | null;
  internalId: string;
  fingerprint: Int16Array | null;
  outside: string;
  settings: Settings | null;
  newest: boolean;
}

export type Outcome = 'new' | 'version' | 'variant' | 'duplicate';
export interface Likeness {
  by: 'bytes' | 'content' | 'effect' | 'identity' | 'title' | 'file name' | 'likeness' | 'design';
  /** ΔE00 between the fingerprints, where both have one */ mean?: number;
  p95?: number;
  max?: number;
  mark?: string;
  words: string;
}
export interface Proposal {
  outcome: Outcome;
  itemId: string | null;
  versionId: string | null;
  entryId: number | null;
  confidence: number;
  likeness: Likeness | null;
  caution: string | null;
}

const nothing: Proposal = {
  outcome: 'new',
  itemId: null,
  versionId: null,
  entryId: null,
  confidence: 1,
  likeness: null,
  caution: null,
};

/** Indexes over what is held, made once for an arrival. */
export class HeldIndex {
  readonly bySha = new Map<string, Held>();
  readonly byContent = new Map<string, Held>();
  readonly byIdentity = new Map<string, Held>();
  readonly byTitle = new Map<string, Held[]>();
  readonly byFile = new Map<string, Held>();
  private readonly prints = new Map<string, { all: Int16Array; list: Held[] }>();
  constructor(held: readonly Held[]) {
    const prints = new Map<string, Held[]>();
    for (const h of held) {
      if (!this.bySha.has(h.sha) || h.newest) this.bySha.set(h.sha, h);
      if (h.content && (!this.byContent.has(h.kind + h.content) || h.newest)) this.byContent.set(h.kind + h.content, h);
      if (!h.newest) continue;
      if (h.internalId) this.byIdentity.set(`${h.kind} ${h.internalId}`, h);
      for (const t of new Set([h.title, ...h.aliases].map((x) => designName(x).base))) {
        const k = `${h.kind} ${t}`;
        const l = this.byTitle.get(k);
        if (l) l.push(h);
        else this.byTitle.set(k, [h]);
      }
      this.byFile.set(`${h.kind} ${foldName(h.fileName)}`, h);
      if (h.fingerprint) {
        const k = group(h);
        const l = prints.get(k);
        if (l) l.push(h);
        else prints.set(k, [h]);
      }
    }
    for (const [kind, list] of prints) {
      const all = new Int16Array(list.length * 192);
      list.forEach((h, i) => all.set(h.fingerprint!, i * 192));
      this.prints.set(kind, { all, list });
    }
  }
  near(e: Incoming, t: Tolerance): { held: Held; mean: number; p95: number; max: number } | null {
    const p = this.prints.get(group(e));
    if (!p || !e.fingerprint) return null;
    const hit = near(e.fingerprint, p.all, p.list.length, t)[0];
    return hit ? { held: p.list[hit.index]!, mean: hit.mean, p95: hit.p95, max: hit.max } : null;
  }
}

const group = (x: { kind: string; outside: string }): string => `${x.kind} ${x.outside}`;
const figures = (f: { mean: number; p95: number; max: number }) => ({
  mean: round(f.mean),
  p95: round(f.p95),
  max: round(f.max),
});
const round = (v: number): number => Math.round(v * 1000) / 1000;
const family = (format: string): string => format.split('@')[0]!;

/** Proposals for all entries of an arrival, in order: later entries may be duplicates or variants of earlier ones. */
export function propose(
  entries: readonly Incoming[],
  index: HeldIndex,
  distance: (a: Int16Array, b: Int16Array) => { mean: number; p95: number; max: number },
  t: Tolerance = tolerance,
): Map<number, Proposal> {
  const out = new Map<number, Proposal>();
  const bySha = new Map<string, Incoming>();
  const byContent = new Map<string, Incoming>();
  const byDesign = new Map<string, Incoming>();
  const near = twins(entries, t);
  const taken = new Set<number>();
  // the plain form of a design is the item; those that say what they are for come after it
  const marked = (e: Incoming): number => Number(designName(e.title, folderOf(e.path)).mark !== null);
  for (const e of [...entries].sort((a, b) => marked(a) - marked(b))) {
    const p = one(e);
    out.set(e.id, p);
    if (p.outcome === 'duplicate') continue;
    if (!bySha.has(e.sha)) bySha.set(e.sha, e);
    if (e.content && !byContent.has(e.kind + e.content)) byContent.set(e.kind + e.content, e);
    const d = `${e.kind} ${designName(e.title, folderOf(e.path)).base}`;
    if (!byDesign.has(d) && p.outcome !== 'variant') byDesign.set(d, e);
    taken.add(e.id);
  }
  return out;

  function one(e: Incoming): Proposal {
    const held = index.bySha.get(e.sha);
    const first = bySha.get(e.sha);
    if (held)
      return {
        ...nothing,
        outcome: 'duplicate',
        itemId: held.itemId,
        versionId: held.versionId,
        likeness: {
          by: 'bytes',
          words: held.newest ? 'byte for byte the same' : 'byte for byte an older version of it',
        },
      };
    if (first)
      return {
        ...nothing,
        outcome: 'duplicate',
        entryId: first.id,
        likeness: { by: 'bytes', words: `byte for byte ${first.path} in this arrival` },
      };
    const same = e.content ? index.byContent.get(e.kind + e.content) : undefined;
    const sameHere = e.content ? byContent.get(e.kind + e.content) : undefined;
    // the same settings in another editor's language are wanted there: a variant, not a copy
    if (same && (e.kind !== 'preset' || same.format === e.format))
      return {
        ...nothing,
        outcome: 'duplicate',
        itemId: same.itemId,
        versionId: same.versionId,
        likeness: {
          by: 'content',
          words: e.kind === 'preset' ? 'the same settings, written otherwise' : 'the same table, written otherwise',
        },
      };
    if (same)
      return {
        ...nothing,
        outcome: 'variant',
        itemId: same.itemId,
        versionId: same.versionId,
        confidence: 0.9,
        likeness: {
          by: 'content',
          mark: `in the language of ${e.format.replace('@', ' ')}`,
          words: 'the same settings in another editor’s language',
        },
      };
    if (sameHere && (e.kind !== 'preset' || sameHere.format === e.format))
      return {
        ...nothing,
        outcome: 'duplicate',
        entryId: sameHere.id,
        likeness: { by: 'content', words: `the same content as ${sameHere.path} in this arrival, written otherwise` },
      };
    if (sameHere)
      return {
        ...nothing,
        outcome: 'variant',
        entryId: sameHere.id,
        confidence: 0.9,
        likeness: {
          by: 'content',
          mark: `in the language of ${e.format.replace('@', ' ')}`,
          words: `the same settings as ${sameHere.path}, in another editor’s language`,
        },
      };

    const between = (h: { fingerprint: Int16Array | null }) =>
      e.fingerprint && h.fingerprint ? figures(distance(e.fingerprint, h.fingerprint)) : null;
    const by = e.internalId ? index.byIdentity.get(`${e.kind} ${e.internalId}`) : undefined;
    if (by)
      return {
        ...nothing,
        outcome: 'version',
        itemId: by.itemId,
        versionId: by.versionId,
        confidence: 0.97,
        likeness: { by: 'identity', ...between(by), words: 'it bears the same identity inside' },
      };

    const design = designName(e.title, folderOf(e.path));
    const twins = index.byTitle.get(`${e.kind} ${design.base}`) ?? [];
    let caution: string | null = null;
    for (const h of twins) {
      const heldMark = designName(h.title).mark;
      const d = between(h);
      if (design.mark !== heldMark && design.mark)
        return {
          ...nothing,
          outcome: 'variant',
          itemId: h.itemId,
          versionId: h.versionId,
          confidence: 0.8,
          likeness: { by: 'design', mark: design.mark, ...d, words: `the same design, ${design.mark}` },
        };
      if (e.kind === 'preset' && e.format !== h.format && family(e.format) === family(h.format))
        return {
          ...nothing,
          outcome: 'variant',
          itemId: h.itemId,
          versionId: h.versionId,
          confidence: 0.8,
          likeness: {
            by: 'design',
            mark: `in the language of ${e.format.replace('@', ' ')}`,
            ...d,
            words: 'the same design in another version of the editor’s language',
          },
        };
      if (e.kind === 'preset' && e.format !== h.format) continue;
      const headings =
        h.headings.length > 0 &&
        h.headings.some(
          (x) =>
            e.headings.some((y) => foldName(x) === foldName(y)) ||
            folderOf(e.path)
              .split('/')
              .some((f) => foldName(f) === foldName(x)),
        );
      const kin = d ? d.mean <= 10 : true;
      if (d && group(e) === group(h) && d.p95 <= t.p95 && d.max <= t.max)
        return {
          ...nothing,
          outcome: 'duplicate',
          itemId: h.itemId,
          versionId: h.versionId,
          confidence: 0.9,
          likeness: { by: 'effect', ...d, words: 'it bears the same name and does the same' },
        };
      if (kin || headings)
        return {
          ...nothing,
          outcome: 'version',
          itemId: h.itemId,
          versionId: h.versionId,
          confidence: headings && kin ? 0.95 : d && d.mean <= 6 ? 0.88 : 0.75,
          likeness: { by: 'title', ...d, words: headings ? 'the same title and headings' : 'the same title' },
          caution: kin ? null : 'It bears the name of an item that does something quite different.',
        };
      caution = `Another item bears this name, and does something quite different${d ? ` (mean ΔE00 ${d.mean.toFixed(1)})` : ''}.`;
    }
    const file = index.byFile.get(`${e.kind} ${foldName(e.path.split('/').pop()!)}`);
    if (file && (e.kind !== 'preset' || file.format === e.format)) {
      const d = between(file);
      if (!d || d.mean <= 6)
        return {
          ...nothing,
          outcome: 'version',
          itemId: file.itemId,
          versionId: file.versionId,
          confidence: 0.7,
          likeness: { by: 'file name', ...d, words: 'the same file name, under another title' },
          caution,
        };
    }
    const effect = index.near(e, t);
    if (effect)
      return {
        ...nothing,
        outcome: 'duplicate',
        itemId: effect.held.itemId,
        versionId: effect.held.versionId,
        confidence: 0.85,
        likeness: { by: 'effect', ...figures(effect), words: 'another name, the same effect' },
      };
    if (e.settings && Object.keys(e.settings).length >= 5) {
      for (const [, list] of index.byTitle)
        for (const h of list) {
          if (h.kind !== e.kind || h.format !== e.format || !h.settings || nameLikeness(h.title, e.title) < 0.45)
            continue;
          if (settingLikeness(h.settings, e.settings) >= 0.7)
            return {
              ...nothing,
              outcome: 'version',
              itemId: h.itemId,
              versionId: h.versionId,
              confidence: 0.6,
              likeness: {
                by: 'likeness',
                ...between(h),
                words: 'most of its settings are the same, and its name is much alike',
              },
            };
        }
    }
    // within the arrival: variants of one design, and copies by effect
    const twin = byDesign.get(`${e.kind} ${design.base}`);
    if (twin) {
      const twinMark = designName(twin.title, folderOf(twin.path)).mark;
      if (design.mark !== twinMark || (e.kind === 'preset' && e.format !== twin.format)) {
        const mark =
          design.mark !== twinMark && design.mark
            ? design.mark
            : e.format !== twin.format
              ? `in the language of ${e.format.replace('@', ' ')}`
              : 'another variant';
        return {
          ...nothing,
          outcome: 'variant',
          entryId: twin.id,
          confidence: 0.8,
          likeness: {
            by: 'design',
            mark,
            ...between(twin),
            words: `the same design as ${baseName(twin.path)}, ${mark}`,
          },
        };
      }
    }
    if (e.fingerprint)
      for (const o of near.get(e.id) ?? []) {
        const d = taken.has(o.id) ? distance(e.fingerprint, o.fingerprint!) : null;
        if (d && d.p95 <= t.p95 && d.max <= t.max)
          return {
            ...nothing,
            outcome: 'duplicate',
            entryId: o.id,
            confidence: 0.85,
            likeness: { by: 'effect', ...figures(d), words: `the same effect as ${o.path} in this arrival` },
          };
      }
    return { ...nothing, caution };
  }
}

/** For each entry those of the same arrival that do nearly the same. */
function twins(entries: readonly Incoming[], t: Tolerance): Map<number, Incoming[]> {
  const groups = new Map<string, Incoming[]>();
  const out = new Map<number, Incoming[]>();
  for (const e of entries)
    if (e.fingerprint) {
      const k = group(e);
      const l = groups.get(k);
      if (l) l.push(e);
      else groups.set(k, [e]);
    }
  const add = (a: Incoming, b: Incoming): void => {
    const l = out.get(a.id);
    if (l) l.push(b);
    else out.set(a.id, [b]);
  };
  for (const list of groups.values()) {
    const all = new Int16Array(list.length * 192);
    list.forEach((e, i) => all.set(e.fingerprint!, i * 192));
    for (const [i, j] of nearPairs(all, list.length, t)) {
      add(list[i]!, list[j]!);
      add(list[j]!, list[i]!);
    }
  }
  return out;
}

export const folderOf = (path: string): string => (path.includes('/') ? path.slice(0, path.lastIndexOf('/')) : '');
