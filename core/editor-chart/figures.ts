/** What a reading of a chart is kept with. */
import type { Figures } from '../conversion/outcome';
import type { ReadingWarning } from './read';

export interface ReadingFigures {
  /** standard deviation within patches, in code values of 255; null where it could not be told */ noise: number | null;
  /** colors that come again against each other, in ΔE00 */ spread: { mean: number; max: number } | null;
  repaired: string[];
  warnings: ReadingWarning[];
  /** the table against what lies between its points */ error: Figures | null;
  /** our own rendering of the preset against the reading; null where the library does not hold the preset */
  agreement: Figures | null;
  validFor: string;
}

/** How well our rendering of a preset agrees with what its editor makes of it, as far as it was measured. */
export interface Agreement extends Figures {
  editor: string;
  /** which readings */ readings: number;
  validFor: string;
  /** as an ISO date with time */ at: string;
}

export const agreementWords = ({ meanDeltaE, p95DeltaE, maxDeltaE }: Figures): string =>
  `ΔE00 mean ${meanDeltaE.toFixed(2)}, 95 % ${p95DeltaE.toFixed(2)}, max ${maxDeltaE.toFixed(2)}`;
