/** What a file is to the held items of its name: asked of one after the other, until one of them answers. */
import { groupBy } from '../../lists';
import { designName } from '../likeness';
import {
  between,
  closest,
  isOtherLanguage,
  isWithin,
  languageMark,
  nextOf,
  ofHeld,
  sharesHeading,
  type Context,
  type Rule,
} from './matching';
import { familyOf, folderOf, groupOf, type Distance, type Held, type Incoming, type Proposal } from './types';

/** ΔE00 in the mean up to which two of one name can be one thing, and up to which that is likely. */
const KIN = 10;
const CLOSE = 6;

interface Pair {
  incoming: Incoming;
  held: Held;
  /** what the file's name says of it, beside the design's: "for rendered files" */ mark: string | null;
  apart: Distance | null;
  context: Context;
}
interface TitleRule {
  id: string;
  find: (pair: Pair) => Proposal | null;
}

const isKin = (apart: Distance | null): boolean => !apart || apart.mean <= KIN;

const variantByMark: TitleRule = {
  id: 'its name says what it is for',
  find: ({ held, mark, apart }) =>
    mark && mark !== held.variant && mark !== designName(held.title).mark
      ? ofHeld(held, 'variant', 0.8, { by: 'design', mark, ...apart, words: `the same design, ${mark}` })
      : null,
};

const variantByLanguage: TitleRule = {
  id: 'it is in the language of another edition of the editor',
  find: ({ incoming, held, apart }) => {
    if (!isOtherLanguage(incoming, held) || familyOf(incoming.format) !== familyOf(held.format)) return null;
    const words = 'the same design in another version of the editor’s language';
    return ofHeld(held, 'variant', 0.8, { by: 'design', mark: languageMark(incoming), ...apart, words });
  },
};

const copyByEffect: TitleRule = {
  id: 'it does the same',
  find: ({ incoming, held, apart, context }) => {
    if (!apart || groupOf(incoming) !== groupOf(held) || !isWithin(apart, context.tolerance)) return null;
    const words = 'it has the same name and the same effect';
    return ofHeld(held, 'duplicate', 0.9, { by: 'effect', ...apart, words });
  },
};

function confidenceOf(headings: boolean, apart: Distance | null): number {
  if (headings && isKin(apart)) return 0.95;
  return apart && apart.mean <= CLOSE ? 0.88 : 0.75;
}

const newVersion: TitleRule = {
  id: 'it does something kindred, or stands under the same headings',
  find: ({ incoming, held, apart }) => {
    const headings = sharesHeading(incoming, held);
    const kin = isKin(apart);
    if (!kin && !headings) return null;
    const words = headings ? 'the same title and headings' : 'the same title';
    const proposal = nextOf(incoming, held, confidenceOf(headings, apart), { by: 'title', ...apart, words });
    return { ...proposal, caution: kin ? null : 'It has the name of an item with quite another effect.' };
  },
};

/** In the order in which they count, for one held item. */
export const titleRules: readonly TitleRule[] = [variantByMark, variantByLanguage, copyByEffect, newVersion];

/** A preset of another editor altogether says nothing of this one, unless it is told apart by its name. */
const saysNothing = ({ incoming, held, mark }: Pair): boolean =>
  isOtherLanguage(incoming, held) &&
  familyOf(incoming.format) !== familyOf(held.format) &&
  !(mark && mark !== designName(held.title).mark);

function pairsOf(incoming: Incoming, context: Context): Pair[] {
  const { base, mark } = designName(incoming.title, folderOf(incoming.path));
  const forms = groupBy(context.held.ofDesign(incoming.kind, base), (held) => held.itemId);
  return [...forms.values()]
    .flatMap((list) => closest(incoming, list) ?? [])
    .map((held) => ({ incoming, held, mark, apart: between(incoming, held, context), context }))
    .filter((pair) => !saysNothing(pair));
}

export const titleRule: Rule = {
  id: 'the same title as something held',
  find: (incoming, context) => {
    for (const pair of pairsOf(incoming, context))
      for (const rule of titleRules) {
        const proposal = rule.find(pair);
        if (proposal) return proposal;
      }
    return null;
  },
};

/** What is to be said of a file that bears the name of something else; null where none does. */
export function titleCaution(incoming: Incoming, context: Context): string | null {
  const last = pairsOf(incoming, context).pop();
  if (!last) return null;
  const by = last.apart ? ` (mean ΔE00 ${last.apart.mean.toFixed(1)})` : '';
  return `Another item has this name and quite another effect${by}.`;
}
