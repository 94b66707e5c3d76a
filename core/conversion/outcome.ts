/** What becomes of a source in a conversion: the same words in its plan, in its lineage and on each screen. */
import type { Residual } from '../look/residual';
import type { Approximated, LeftOut } from '../preset/convert';

/** Differences over many colors, in ΔE00. */
export type Figures = Pick<Residual, 'maxDeltaE' | 'p95DeltaE' | 'meanDeltaE'>;

export interface Outcome {
  /** what is made, in a few words: “table of 33 points” */ said: string;
  /** ids of settings */ carried: string[];
  approximated: Approximated[];
  left: LeftOut[];
  /** properties that the language's mapping does not know: they stay in the source */ unknown: string[];
  /** of a table against direct evaluation, or of one preset against the other; null where nothing is approximated */
  error: Figures | null;
}

/** How far a table may be off before a lead has to say so, in ΔE00. */
export interface Thresholds {
  mean: number;
  max: number;
}

export type Proof = 'exact' | 'passed' | 'failed';

/** Whether figures are within the thresholds of the studio. */
export function proofOf(error: Figures | null, { mean, max }: Thresholds): Proof {
  if (!error) return 'exact';
  return error.meanDeltaE <= mean && error.maxDeltaE <= max ? 'passed' : 'failed';
}

/** An error in ΔE00, in the words of every screen that shows one. */
export const errorWords = ({ meanDeltaE, maxDeltaE }: Pick<Figures, 'meanDeltaE' | 'maxDeltaE'>): string =>
  `mean ${meanDeltaE.toFixed(2)}, largest ${maxDeltaE.toFixed(2)}`;
