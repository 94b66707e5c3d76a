'use client';
/** What every part of the bench may ask for, so that it is not handed down through all of them. */
import { createContext, useContext } from 'react';
import type { CellSpec } from '@/core/bench/cell';
import type { ChoiceOnBench } from '@/core/bench/choice';
import type { Gamut } from '@/core/bench/display-gamut';
import type { Action } from '../kit/action';
import type { Pool } from './hooks/pool';
import type { Wanted } from './hooks/candidates';
import type { Whites } from './hooks/whites';
import type { Candidate } from './model/candidate';
import type { Column } from './model/column';
import type { Command } from './model/commands';
import type { ChartOnBench, ExportOnBench, FrameOnBench } from './model/frame';
import type { Candidates } from './model/names';
import type { Row, State } from './model/state';

export interface FrameSet {
  id: string;
  name: string;
  frames: string[];
}
export interface SavedBench {
  id: string;
  name: string;
  state: string;
  person: string;
  mine: boolean;
}

/** What came with the page. */
export interface BenchProps {
  choices: ChoiceOnBench[];
  frames: FrameOnBench[];
  charts: ChartOnBench[];
  exports: ExportOnBench[];
  sets: FrameSet[];
  shelves: { id: string; name: string }[];
  saved: SavedBench[];
  known: Candidate[];
  may: { judge: boolean; choice: boolean; edit: boolean; frames: boolean; profile: boolean; keep: boolean };
}

/** A row with its frame. */
export interface LaidRow extends Row {
  at: FrameOnBench;
}

/** Which dialog is open, and about what. */
export type Asking =
  | { what: 'find a candidate' }
  | { what: 'find a layer'; column: number }
  | { what: 'judge'; column: number }
  | { what: 'save the bench' }
  | { what: 'save the set' }
  | { what: 'keep the anchored profile'; row: number }
  | { what: 'keep the column'; column: number }
  | { what: 'chart'; row: number }
  | { what: 'bring an export' };

export interface BenchContext extends Omit<BenchProps, 'known'> {
  state: State;
  rows: readonly LaidRow[];
  /** columns in the order in which they stand */ order: readonly number[];
  candidates: Candidates;
  pool: Pool | null;
  whites: Whites;
  tellWhite: (frame: string, white: Whites[string]) => void;
  gamut: Gamut;
  /** the name of the set whose frames these are, or "Bench" */ title: string;
  /** the row whose neutral is being picked */ picking: number | null;
  setPicking: (row: number | null) => void;
  /** the column whose trim is open */ trimming: number | null;
  setTrimming: (column: number | null) => void;
  /** whether the ruler of range compression is open */ ranging: boolean;
  setRanging: (open: boolean) => void;
  run: (command: Command) => void;
  openAddress: (address: string) => void;
  action: Action;
  ask: (asking: Asking | null) => void;
  nameAt: (column: number) => string;
  cellFor: (row: LaidRow, column: Column, width?: number) => CellSpec;
  addColumns: (columns: readonly Column[], at?: number) => void;
  /** fetches candidates and, where there are any that can be shown, hands them on */
  withCandidates: (wanted: Wanted, then: (list: Candidate[]) => void) => void;
  enlarge: (row: number, column: number) => void;
}

export const BenchValue = createContext<BenchContext | null>(null);

export function useBench(): BenchContext {
  const value = useContext(BenchValue);
  if (!value) throw new Error('a part of the bench stands outside of it');
  return value;
}
