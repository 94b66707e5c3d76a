/** What is compared when files come in, and what is said of each. */
import type { Settings } from '../../preset/kinds';

/** What both sides of a comparison have. */
interface Compared {
  kind: string;
  format: string;
  title: string;
  headings: string[];
  /** of the bytes */ sha: string;
  /** of what the bytes mean, whatever the format; null where nobody worked that out */ content: string | null;
  /** an identity that the file bears inside, '' without */ internalId: string;
  fingerprint: Int16Array | null;
  /** what a table cannot carry, in canonical form: only alike in that can two presets do the same */ outside: string;
  settings: Settings | null;
}
/** A file of an arrival. */
export interface Incoming extends Compared {
  id: number;
  path: string;
}
/** A version of an item that is held. */
export interface Held extends Compared {
  itemId: string;
  versionId: string;
  aliases: string[];
  fileName: string;
  /** '' for the plain form of the design, else what sets it apart */ variant: string;
  /** of its variant */ newest: boolean;
}

export type Outcome = 'new' | 'version' | 'variant' | 'duplicate';

/** ΔE00 between two fingerprints. */
export interface Distance {
  mean: number;
  p95: number;
  max: number;
}
export interface Likeness extends Partial<Distance> {
  by: 'bytes' | 'content' | 'effect' | 'identity' | 'title' | 'file name' | 'likeness' | 'design';
  /** what sets a variant apart from the design */ mark?: string;
  words: string;
}
export interface Proposal {
  outcome: Outcome;
  /** of which item, and which version of it, where it is held */ itemId: string | null;
  versionId: string | null;
  /** of which file of the same arrival, where that came before */ entryId: number | null;
  /** 0…1 */ confidence: number;
  likeness: Likeness | null;
  caution: string | null;
}

export const nothing: Proposal = {
  outcome: 'new',
  itemId: null,
  versionId: null,
  entryId: null,
  confidence: 1,
  likeness: null,
  caution: null,
};

/** Only within a group can two things do the same. */
export const groupOf = (one: { kind: string; outside: string }): string => `${one.kind} ${one.outside}`;

export const folderOf = (path: string): string => path.slice(0, Math.max(0, path.lastIndexOf('/')));

/** "marlstone@4" is of the family "marlstone". */
export const familyOf = (format: string): string => format.split('@')[0] ?? format;

const rounded = (value: number): number => Math.round(value * 1000) / 1000;

/** As it is told: three digits behind the point. */
export const told = ({ mean, p95, max }: Distance): Distance => ({
  mean: rounded(mean),
  p95: rounded(p95),
  max: rounded(max),
});
