/**
 * What an incoming file is to what is held: new, a new version, a variant of a design, a duplicate, and by what. Pure: the
 * caller brings the held items that could matter.
 */
import { tolerance as usualTolerance, type Tolerance } from '../../look/fingerprint';
import { designName } from '../likeness';
import { EarlierEntries } from './earlier';
import type { HeldIndex } from './held-index';
import type { Context } from './matching';
import { rules } from './rules';
import { titleCaution } from './title-rules';
import { folderOf, nothing, type Incoming, type Proposal } from './types';

export { HeldIndex } from './held-index';
export { folderOf } from './types';
export type { Held, Incoming, Likeness, Outcome, Proposal } from './types';

/** The first rule that finds something decides. */
export function proposalFor(incoming: Incoming, context: Context): Proposal {
  for (const rule of rules) {
    const proposal = rule.find(incoming, context);
    if (proposal) return proposal;
  }
  return { ...nothing, caution: titleCaution(incoming, context) };
}

/** Whether its name says what it is for, beside the name of the design. */
const isMarked = ({ title, path }: Incoming): boolean => designName(title, folderOf(path)).mark !== null;

/**
 * Proposals for all entries of an arrival, by their id: later entries may be duplicates or variants of earlier ones.
 * @param distance ΔE00 between two fingerprints
 * @param tolerance up to where two count as the same
 */
export function propose(
  entries: readonly Incoming[],
  held: HeldIndex,
  distance: Context['distance'],
  tolerance: Tolerance = usualTolerance,
): Map<number, Proposal> {
  const earlier = new EarlierEntries(entries, tolerance);
  const context: Context = { held, earlier, distance, tolerance };
  const proposals = new Map<number, Proposal>();
  // the plain form of a design is the item; those that say what they are for come after it
  for (const incoming of [...entries].sort((a, b) => Number(isMarked(a)) - Number(isMarked(b)))) {
    const proposal = proposalFor(incoming, context);
    proposals.set(incoming.id, proposal);
    earlier.add(incoming, proposal);
  }
  return proposals;
}
