'use client';
/** The bench's state, kept in the page's address, and how it is changed. */
import { useCallback, useMemo } from 'react';
import { useOwnAddress } from '../../kit/own-address';
import { addressOf, stateOf } from '../model/address';
import { isStep, perform, type Command } from '../model/commands';
import type { State } from '../model/state';

/** Rows whose frame is not in the studio are left out. */
const withKnownRows = (state: State, known: ReadonlyMap<string, unknown>): State => ({
  ...state,
  rows: state.rows.filter((row) => known.has(row.frame)),
});

export function useBenchState(known: ReadonlyMap<string, unknown>): {
  state: State;
  /** Works on what the address holds now, which may be newer than what was drawn last. */ run: (
    command: Command,
  ) => void;
  openAddress: (address: string) => void;
} {
  const { text, setAddress, last } = useOwnAddress();
  const state = useMemo(() => withKnownRows(stateOf(text), known), [text, known]);
  const run = useCallback(
    (command: Command) => {
      const next = perform(withKnownRows(stateOf(last()), known), command);
      setAddress(addressOf(next), isStep(command));
    },
    [setAddress, last, known],
  );
  const openAddress = useCallback((address: string) => setAddress(address, true), [setAddress]);
  return { state, run, openAddress };
}
