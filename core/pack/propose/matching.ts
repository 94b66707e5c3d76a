/** What rules are made of: what they look at, and how they say what they found. */
import type { Tolerance } from '../../look/fingerprint';
import { designName, foldName } from '../likeness';
import type { EarlierEntries } from './earlier';
import type { HeldIndex } from './held-index';
import {
  folderOf,
  nothing,
  told,
  type Distance,
  type Held,
  type Incoming,
  type Likeness,
  type Outcome,
  type Proposal,
} from './types';

export interface Context {
  held: HeldIndex;
  earlier: EarlierEntries;
  distance: (a: Int16Array, b: Int16Array) => Distance;
  tolerance: Tolerance;
}
export interface Rule {
  id: string;
  find: (incoming: Incoming, context: Context) => Proposal | null;
}

/** How far two are apart in effect, as it is told; null where one of them has no fingerprint. */
export function between(incoming: Incoming, other: Held | Incoming, { distance }: Context): Distance | null {
  if (!incoming.fingerprint || !other.fingerprint) return null;
  return told(distance(incoming.fingerprint, other.fingerprint));
}
export const isWithin = ({ p95, max }: Distance, tolerance: Tolerance): boolean =>
  p95 <= tolerance.p95 && max <= tolerance.max;

/** A design in another preset language is wanted there: no copy, but a variant. */
export const isOtherLanguage = (incoming: Incoming, other: { format: string }): boolean =>
  incoming.kind === 'preset' && other.format !== incoming.format;
export const languageMark = ({ format }: Incoming): string => `in the language of ${format.replace('@', ' ')}`;

/** What its name or its folder says that it is for; '' where they say nothing. */
export const markOf = ({ title, path }: Incoming): string => designName(title, folderOf(path)).mark ?? '';

/** Of several forms of what is held, the one that a file most likely continues: that of its mark, else the plain one. */
export function closest(incoming: Incoming, forms: readonly Held[]): Held | undefined {
  const mark = markOf(incoming);
  const fit = (held: Held): number =>
    4 * Number(held.variant === mark) + 2 * Number(held.format === incoming.format) + Number(held.variant === '');
  return [...forms].sort((a, b) => fit(b) - fit(a))[0];
}

/** In which form of the design a file stands that continues a held one; '' for the plain form. */
function formOf(incoming: Incoming, held: Held): string {
  if (held.variant) return held.variant;
  const mark = markOf(incoming);
  if (mark && mark !== designName(held.title).mark) return mark;
  return isOtherLanguage(incoming, held) ? languageMark(incoming) : '';
}

export const ofHeld = (held: Held, outcome: Outcome, confidence: number, likeness: Likeness): Proposal => ({
  ...nothing,
  outcome,
  itemId: held.itemId,
  versionId: held.versionId,
  confidence,
  likeness,
});

/**
 * The next version of what is held: of its plain form, or of the variant that the file is. A file in another editor's
 * language never takes the place of the plain form, which would change its item's editor.
 */
export function nextOf(incoming: Incoming, held: Held, confidence: number, likeness: Likeness): Proposal {
  const mark = formOf(incoming, held);
  if (!mark) return ofHeld(held, 'version', confidence, likeness);
  return ofHeld(held, 'variant', confidence, { ...likeness, mark, words: `${likeness.words}, ${mark}` });
}

export const ofEntry = (entry: Incoming, outcome: Outcome, confidence: number, likeness: Likeness): Proposal => ({
  ...nothing,
  outcome,
  entryId: entry.id,
  confidence,
  likeness,
});

/** Whether one of a held item's headings is among the file's, or names a folder in which it lies. */
export function sharesHeading(incoming: Incoming, held: Held): boolean {
  const own = [...incoming.headings, ...folderOf(incoming.path).split('/')].map(foldName);
  return held.headings.some((heading) => own.includes(foldName(heading)));
}
