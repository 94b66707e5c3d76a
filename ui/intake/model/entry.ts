/** A file of an arrival as its page shows it, and how such files are grouped by what is to be decided. */
import { AS_PROPOSED, type EntryGroup } from '@/core/api/arrivals';
import type { ProblemText } from '../../kit/call';
import { counted } from '../../kit/words';

export interface Likeness {
  by: string;
  mean?: number;
  p95?: number;
  max?: number;
  words: string;
  mark?: string;
}
export interface Entry {
  id: number;
  path: string;
  size: number;
  outcome: string;
  proposal: string;
  corrected: boolean;
  kind: string;
  format: string;
  title: string;
  headings: string[];
  needs: { kind: string; name: string; where: string }[];
  selvedge: [string, string][] | null;
  note: string;
  caution: string;
  /** of a preset: titles of settings that its picture does not show */ notShown: string[];
  problem: ProblemText | null;
  targetItem: string | null;
  targetTitle: string | null;
  targetPath: string | null;
  likeness: Likeness | null;
  confidence: number;
  evidence: string[];
  mismatches: string[];
  itemId: string | null;
  frameId: string | null;
}
export interface GroupOfEntries {
  group: EntryGroup;
  count: number;
  /** of these, so many are proposed to be taken */ takeable: number;
  rows: Entry[];
}

/** The groups by name: their title, and what is to be said of them. */
export const groupWords: Record<string, { title: string; note: string }> = {
  refused: { title: 'Refused', note: 'not read, and why; the rest is not touched by it' },
  unknown: { title: 'Unknown', note: 'kept out; no reader knows them' },
  again: { title: 'Look again', note: 'please check: we are not sure what they are' },
  version: { title: 'New versions', note: 'of items that are held; what changed is said' },
  variant: { title: 'Variants', note: 'of one design: they stand together as one item' },
  effect: {
    title: 'The same effect as something held',
    note: 'another name or table, within what counts as a copy here; left out',
  },
  new: { title: 'New', note: 'to be taken onto a shelf' },
  frame: { title: 'Frames', note: 'pictures to preview on' },
  picture: {
    title: 'Pictures of the pack',
    note: 'previews of what is in it; not taken, unless you make frames of them',
  },
  descriptor: { title: 'Descriptors', note: 'what Etagere knows of an editor; the studio lead decides on each' },
  held: { title: 'Held already', note: 'the same content; not taken twice' },
  papers: { title: 'Papers and leftovers', note: 'not taken' },
};

/** What a file can be made to become. */
export const becomes = [
  { outcome: AS_PROPOSED, words: 'what was proposed' },
  { outcome: 'new', words: 'a new item' },
  { outcome: 'version', words: 'a new version of …' },
  { outcome: 'variant', words: 'a variant of …' },
  { outcome: 'duplicate', words: 'nothing: held already' },
  { outcome: 'document', words: 'nothing: leave it out' },
] as const;
export const frameBecomes = [
  { outcome: AS_PROPOSED, words: 'what was proposed' },
  { outcome: 'frame', words: 'a frame' },
  { outcome: 'document', words: 'nothing: leave it out' },
] as const;

/** Of a file that no reader knows, or that is a paper. */
export const supportBecomes = [
  { outcome: AS_PROPOSED, words: 'what was proposed' },
  { outcome: 'new', words: 'a support file of an editor' },
  { outcome: 'version', words: 'a new version of the support file …' },
  { outcome: 'document', words: 'nothing: leave it out' },
] as const;

const taken = new Set(['new', 'version', 'variant', 'frame', 'descriptor']);
export const isTaken = (entry: Entry): boolean => taken.has(entry.outcome);

/** A chart that went through an editor: whoever may look into arrivals may read it. */
export const isChartBack = ({ format }: Entry): boolean => format === 'editor-chart';

const fixedKinds = new Set(['', 'descriptor', 'chart']);
/** Whether a person may say that a file is something else: what was left out can be taken back. */
/** What an unread file is taken as, where it is to become an item or a version of one. */
export const kindOfUnread = (outcome: string): { kind?: string } =>
  outcome === 'new' || outcome === 'version' ? { kind: 'support-file' } : {};

/** What only a person can say more of: nothing is read of it. */
export const isUnread = ({ kind }: Entry): boolean => ['unknown', 'document', 'support-file'].includes(kind);
export const isCorrectable = ({ outcome, kind }: Entry): boolean => outcome !== 'refused' && !fixedKinds.has(kind);

/** Such an outcome needs to be told of which item it is. */
export const needsItem = (outcome: string): boolean => outcome === 'version' || outcome === 'variant';

export const folderOf = (path: string): string => path.slice(0, Math.max(0, path.lastIndexOf('/')));

/** How far a file's effect is from that of what it is like. */
export function differenceWords({ mean, max }: Likeness): string {
  if (mean === undefined || max === undefined || !Number.isFinite(mean)) return '';
  if (max < 0.05) return ', no difference in color';
  return `, ΔE00 ${mean.toFixed(2)} in the mean, ${max.toFixed(1)} at most`;
}

/** Kinds of what is new, the commonest first. */
export function kindsOfNew(groups: readonly GroupOfEntries[]): string[] {
  const counts = new Map<string, number>();
  for (const entry of groups.flatMap((group) => group.rows))
    if (entry.outcome === 'new') counts.set(entry.kind, (counts.get(entry.kind) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1]).map(([kind]) => kind);
}

/** What was taken in, in words: "14 items, 2 versions". */
export function takenWords(taken: {
  items: readonly unknown[];
  versions: number;
  frames: number;
  descriptors: number;
}): string {
  const parts = [
    { count: taken.items.length, one: 'item' },
    { count: taken.versions, one: 'version' },
    { count: taken.frames, one: 'frame' },
    { count: taken.descriptors, one: 'descriptor' },
  ];
  return parts
    .filter(({ count }) => count > 0)
    .map(({ count, one }) => counted(count, one))
    .join(', ');
}
