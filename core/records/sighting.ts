/** Whether an item is seen working in an editor: by the editor's own picture of a frame with the item on, and ours of the same. */
import type { Thresholds } from '../conversion/outcome';
import type { PictureFigures } from '../look/picture-difference';

/** Differences of pictures in ΔE00. */
export interface SightingFigures {
  /** the editor's picture against ours */ off: PictureFigures;
  /** the editor's against what it was given */ there: PictureFigures;
  /** ours against what it was given */ here: PictureFigures;
}
export const sightingStates = ['asked', 'seen', 'differs', 'unclear', 'failed'] as const;
export type SightingState = (typeof sightingStates)[number];
export type Verdict = Extract<SightingState, 'seen' | 'differs' | 'unclear'>;

/** An item that changes a frame by less than this on average does not show on it. */
export const LEAST_EFFECT = 0.5;
/** Nearer to what it was given than this share of the effect, the editor has done nothing. */
const NOTHING = 0.3;
/** Seen working is what is nearer to ours than this share of the effect: a small effect may lie within the thresholds whole. */
const NEAR = 0.5;

/** @param within the studio's thresholds for tables */
export function verdictOf({ off, here }: SightingFigures, within: Thresholds): Verdict {
  if (here.mean < LEAST_EFFECT) return 'unclear';
  return off.mean <= within.mean && off.max <= within.max && off.mean <= NEAR * here.mean ? 'seen' : 'differs';
}

const mean = (figures: PictureFigures): string => figures.mean.toFixed(2);

export interface SightingOf {
  editor: string;
  frame: string;
  /** titles of settings that our picture does not show, and the editor's may */ notShown: readonly string[];
}

/** What was found, as a sentence. */
export function sightingWords(
  verdict: Verdict,
  { off, there, here }: SightingFigures,
  { editor, frame, notShown }: SightingOf,
): string {
  if (verdict === 'unclear')
    return `it hardly changes ${frame} (ΔE00 ${mean(here)} on average): ask with a frame on which it shows`;
  const apart = `ΔE00 ${mean(off)} on average, ${off.max.toFixed(1)} at most`;
  if (verdict === 'seen') return `${editor}’s own picture of ${frame} is as ours: ${apart}`;
  if (there.mean < NOTHING * here.mean)
    return `${editor}’s picture of ${frame} is as it was without it (ΔE00 ${mean(there)} on average)`;
  const told = notShown.length ? `; ours does not show ${notShown.join(', ').toLowerCase()}` : '';
  return `${editor}’s own picture of ${frame} is not as ours: ${apart}${told}`;
}
