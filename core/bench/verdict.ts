/** What was found of an item on the bench. */
export interface Verdict {
  id: number;
  version: number;
  frame: string | null;
  camera: string;
  light: string;
  /** in percent */ strength: number;
  /** of a profile, the rungs that it was seen with; null for a look */ stages: string[] | null;
  beside: string;
  words: string;
  chosen: boolean;
  /** who judged did not know what it was */ blind: boolean;
  /** null where nobody said */ as_meant: boolean | null;
  display: { gamut?: string; calibrated?: string };
  provisional: boolean;
  person: string | null;
}
