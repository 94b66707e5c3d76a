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
      for (const text of new Set([h.title, ...h.aliases].map((x) => designName(x).base))) {
        const key = `${h.kind} ${text}`;
        const helds = this.byTitle.get(key);
        if (helds) helds.push(h);
        else this.byTitle.set(key, [h]);
      }
      this.byFile.set(`${h.kind} ${foldName(h.fileName)}`, h);
      if (h.fingerprint) {
        const key = group(h);
        const helds = prints.get(key);
        if (helds) helds.push(h);
        else prints.set(key, [h]);
      }
    }
    for (const [kind, list] of prints) {
      const all = new Int16Array(list.length * 192);
      list.forEach((h, i) => all.set(h.fingerprint!, i * 192));
      this.prints.set(kind, { all, list });
    }
  }
  near(incoming: Incoming, t: Tolerance): { held: Held; mean: number; p95: number; max: number } | null {
    const p = this.prints.get(group(incoming));
    if (!p || !incoming.fingerprint) return null;
    const hit = near(incoming.fingerprint, p.all, p.list.length, t)[0];
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
  for (const incoming of [...entries].sort((a, b) => marked(a) - marked(b))) {
    const proposal = one(incoming);
    out.set(incoming.id, proposal);
    if (proposal.outcome === 'duplicate') continue;
    if (!bySha.has(incoming.sha)) bySha.set(incoming.sha, incoming);
    if (incoming.content && !byContent.has(incoming.kind + incoming.content))
      byContent.set(incoming.kind + incoming.content, incoming);
    const d = `${incoming.kind} ${designName(incoming.title, folderOf(incoming.path)).base}`;
    if (!byDesign.has(d) && proposal.outcome !== 'variant') byDesign.set(d, incoming);
    taken.add(incoming.id);
  }
  return out;

  function one(incoming: Incoming): Proposal {
    const held = index.bySha.get(incoming.sha);
    const first = bySha.get(incoming.sha);
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
    const same = incoming.content ? index.byContent.get(incoming.kind + incoming.content) : undefined;
    const sameHere = incoming.content ? byContent.get(incoming.kind + incoming.content) : undefined;
    // the same settings in another editor's language are wanted there: a variant, not a copy
    if (same && (incoming.kind !== 'preset' || same.format === incoming.format))
      return {
        ...nothing,
        outcome: 'duplicate',
        itemId: same.itemId,
        versionId: same.versionId,
        likeness: {
          by: 'content',
          words:
            incoming.kind === 'preset' ? 'the same settings, written otherwise' : 'the same table, written otherwise',
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
          mark: `in the language of ${incoming.format.replace('@', ' ')}`,
          words: 'the same settings in another editor’s language',
        },
      };
    if (sameHere && (incoming.kind !== 'preset' || sameHere.format === incoming.format))
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
          mark: `in the language of ${incoming.format.replace('@', ' ')}`,
          words: `the same settings as ${sameHere.path}, in another editor’s language`,
        },
      };

    const between = (h: { fingerprint: Int16Array | null }) =>
      incoming.fingerprint && h.fingerprint ? figures(distance(incoming.fingerprint, h.fingerprint)) : null;
    const by = incoming.internalId ? index.byIdentity.get(`${incoming.kind} ${incoming.internalId}`) : undefined;
    if (by)
      return {
        ...nothing,
        outcome: 'version',
        itemId: by.itemId,
        versionId: by.versionId,
        confidence: 0.97,
        likeness: { by: 'identity', ...between(by), words: 'it bears the same identity inside' },
      };

    const design = designName(incoming.title, folderOf(incoming.path));
    const twins = index.byTitle.get(`${incoming.kind} ${design.base}`) ?? [];
    let caution: string | null = null;
    for (const held of twins) {
      const heldMark = designName(held.title).mark;
      const d = between(held);
      if (design.mark !== heldMark && design.mark)
        return {
          ...nothing,
          outcome: 'variant',
          itemId: held.itemId,
          versionId: held.versionId,
          confidence: 0.8,
          likeness: { by: 'design', mark: design.mark, ...d, words: `the same design, ${design.mark}` },
        };
      if (
        incoming.kind === 'preset' &&
        incoming.format !== held.format &&
        family(incoming.format) === family(held.format)
      )
        return {
          ...nothing,
          outcome: 'variant',
          itemId: held.itemId,
          versionId: held.versionId,
          confidence: 0.8,
          likeness: {
            by: 'design',
            mark: `in the language of ${incoming.format.replace('@', ' ')}`,
            ...d,
            words: 'the same design in another version of the editor’s language',
          },
        };
      if (incoming.kind === 'preset' && incoming.format !== held.format) continue;
      const headings =
        held.headings.length > 0 &&
        held.headings.some(
          (x) =>
            incoming.headings.some((y) => foldName(x) === foldName(y)) ||
            folderOf(incoming.path)
              .split('/')
              .some((f) => foldName(f) === foldName(x)),
        );
      const kin = d ? d.mean <= 10 : true;
      if (d && group(incoming) === group(held) && d.p95 <= t.p95 && d.max <= t.max)
        return {
          ...nothing,
          outcome: 'duplicate',
          itemId: held.itemId,
          versionId: held.versionId,
          confidence: 0.9,
          likeness: { by: 'effect', ...d, words: 'it bears the same name and does the same' },
        };
      if (kin || headings)
        return {
          ...nothing,
          outcome: 'version',
          itemId: held.itemId,
          versionId: held.versionId,
          confidence: headings && kin ? 0.95 : d && d.mean <= 6 ? 0.88 : 0.75,
          likeness: { by: 'title', ...d, words: headings ? 'the same title and headings' : 'the same title' },
          caution: kin ? null : 'It bears the name of an item that does something quite different.',
        };
      caution = `Another item bears this name, and does something quite different${d ? ` (mean ΔE00 ${d.mean.toFixed(1)})` : ''}.`;
    }
    const file = index.byFile.get(`${incoming.kind} ${foldName(incoming.path.split('/').pop()!)}`);
    if (file && (incoming.kind !== 'preset' || file.format === incoming.format)) {
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
    const effect = index.near(incoming, t);
    if (effect)
      return {
        ...nothing,
        outcome: 'duplicate',
        itemId: effect.held.itemId,
        versionId: effect.held.versionId,
        confidence: 0.85,
        likeness: { by: 'effect', ...figures(effect), words: 'another name, the same effect' },
      };
    if (incoming.settings && Object.keys(incoming.settings).length >= 5) {
      for (const [, list] of index.byTitle)
        for (const held of list) {
          if (
            held.kind !== incoming.kind ||
            held.format !== incoming.format ||
            !held.settings ||
            nameLikeness(held.title, incoming.title) < 0.45
          )
            continue;
          if (settingLikeness(held.settings, incoming.settings) >= 0.7)
            return {
              ...nothing,
              outcome: 'version',
              itemId: held.itemId,
              versionId: held.versionId,
              confidence: 0.6,
              likeness: {
                by: 'likeness',
                ...between(held),
                words: 'most of its settings are the same, and its name is much alike',
              },
            };
        }
    }
    // within the arrival: variants of one design, and copies by effect
    const twin = byDesign.get(`${incoming.kind} ${design.base}`);
    if (twin) {
      const twinMark = designName(twin.title, folderOf(twin.path)).mark;
      if (design.mark !== twinMark || (incoming.kind === 'preset' && incoming.format !== twin.format)) {
        const mark =
          design.mark !== twinMark && design.mark
            ? design.mark
            : incoming.format !== twin.format
              ? `in the language of ${incoming.format.replace('@', ' ')}`
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
    if (incoming.fingerprint)
      for (const o of near.get(incoming.id) ?? []) {
        const d = taken.has(o.id) ? distance(incoming.fingerprint, o.fingerprint!) : null;
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
  for (const incoming of entries)
    if (incoming.fingerprint) {
      const key = group(incoming);
      const incomings = groups.get(key);
      if (incomings) incomings.push(incoming);
      else groups.set(key, [incoming]);
    }
  const add = (incoming: Incoming, b: Incoming): void => {
    const incomings = out.get(incoming.id);
    if (incomings) incomings.push(b);
    else out.set(incoming.id, [b]);
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
