'use client';
/** Puts together what the parts of the bench share. */
import { useCallback, useMemo, useState } from 'react';
import type { Gamut } from '@/core/bench/display-gamut';
import { useAction } from '../../kit/action';
import type { Asking, BenchContext, BenchProps, LaidRow } from '../bench-context';
import { cellFor } from '../model/cell';
import { roomFor } from '../model/commands';
import { shownName } from '../model/names';
import { MOST_COLUMNS, orderOf } from '../model/state';
import type { Column } from '../model/column';
import type { Candidate } from '../model/candidate';
import { useBenchState } from './bench-state';
import { useCandidates, type Wanted } from './candidates';
import { displayGamut } from './display';
import { usePool } from './pool';
import { useWhites } from './whites';

const isSameSet = (frames: readonly string[], rows: readonly LaidRow[]): boolean =>
  frames.length === rows.length && frames.every((frame) => rows.some((row) => row.frame === frame));

export function useBenchParts(props: BenchProps): BenchContext & { asking: Asking | null } {
  const { frames, sets, charts, exports, known } = props;
  const byId = useMemo(() => new Map(frames.map((frame) => [frame.id, frame])), [frames]);
  const { state, run, openAddress } = useBenchState(byId);
  const action = useAction();
  const { candidates, fetchMore } = useCandidates(known, state.columns, action.report);
  const { whites, tellWhite } = useWhites();
  const pool = usePool();
  const [asking, ask] = useState<Asking | null>(null);
  const [picking, setPicking] = useState<number | null>(null);
  const [trimming, setTrimming] = useState<number | null>(null);
  const [ranging, setRanging] = useState(false);
  const gamut: Gamut = useMemo(() => (state.mark && displayGamut()) || 'srgb', [state.mark]);

  const rows = state.rows.flatMap((row): LaidRow[] => {
    const frame = byId.get(row.frame);
    return frame ? [{ ...row, at: frame }] : [];
  });

  const addColumns = (columns: readonly Column[], at?: number): void => {
    const room = roomFor(state);
    if (columns.length > room)
      action.say(`The bench holds ${MOST_COLUMNS} columns; ${room} of ${columns.length} were added.`);
    run({ do: 'add columns', columns, ...(at === undefined ? {} : { at }) });
  };

  const withCandidates = (wanted: Wanted, then: (list: Candidate[]) => void): void =>
    void action.run(async () => {
      const shown = (await fetchMore(wanted)).filter((candidate) => candidate.shown);
      if (shown.length) then(shown);
      else action.say('Nothing of that kind is on the shelves.');
    });

  const enlarge = useCallback((row: number, column: number) => run({ do: 'enlarge', row, column }), [run]);

  return {
    ...props,
    state,
    rows,
    order: orderOf(state),
    candidates,
    pool,
    whites,
    tellWhite,
    gamut,
    title: sets.find((set) => isSameSet(set.frames, rows))?.name ?? 'Bench',
    picking,
    setPicking,
    trimming,
    setTrimming,
    ranging,
    setRanging,
    run,
    openAddress,
    action,
    asking,
    ask,
    nameAt: (column) => shownName(state, column, candidates),
    cellFor: (row, column, width) =>
      cellFor({ charts, exports }, state, gamut, { frame: row.at, row, column, ...(width ? { width } : {}) }),
    addColumns,
    withCandidates,
    enlarge,
  };
}
