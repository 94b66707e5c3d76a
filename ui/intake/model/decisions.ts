/** What a person can decide about the files of an arrival, as its groups and rows are given it. */
import type { AS_PROPOSED, EntryGroup, EntryOutcome } from '@/core/api/arrivals';
import type { Entry } from './entry';

/** What files are said to be: some of them, or all of a group. */
export interface Correction {
  entries?: number[];
  group?: EntryGroup;
  outcome: EntryOutcome | typeof AS_PROPOSED;
  /** narrows down of which items they may be a version */ kind?: string;
}

export interface Decisions {
  arrival: string;
  /** on which looks are shown */ frame: string;
  /** what is searched for; '' for nothing */ words: string;
  /** it can still be decided on */ open: boolean;
  /** it has been taken in */ settled: boolean;
  busy: boolean;
  onCorrect: (correction: Correction) => void;
  onTitle: (entry: number, title: string) => void;
  onRead: (entry: number) => void;
}

/** Papers whose content was kept. */
export const isReadable = ({ kind, note }: Entry): boolean => kind === 'document' && note !== '';
