'use client';
/** The matrix by keyboard. */
import type { KeyboardEvent } from 'react';

/** A cell by its row, and by its column's place among the columns of the state. */
export interface CellPlace {
  row: number;
  column: number;
}

export interface KeyActions {
  /** to a neighbour, in rows and in columns as they stand */ walk: (
    from: CellPlace,
    down: number,
    right: number,
  ) => void;
  enlarge: (at: CellPlace) => void;
  strengthen: (at: CellPlace, by: number) => void;
  makeReference: (at: CellPlace) => void;
  switchDifferences: () => void;
  judge: (at: CellPlace) => void;
  takeOff: (at: CellPlace) => void;
}

const STEP = 5;

const bindings: Record<string, (actions: KeyActions, at: CellPlace) => void> = {
  ArrowRight: (actions, at) => actions.walk(at, 0, 1),
  ArrowLeft: (actions, at) => actions.walk(at, 0, -1),
  ArrowDown: (actions, at) => actions.walk(at, 1, 0),
  ArrowUp: (actions, at) => actions.walk(at, -1, 0),
  Enter: (actions, at) => actions.enlarge(at),
  '+': (actions, at) => actions.strengthen(at, STEP),
  '=': (actions, at) => actions.strengthen(at, STEP),
  '-': (actions, at) => actions.strengthen(at, -STEP),
  r: (actions, at) => actions.makeReference(at),
  d: (actions) => actions.switchDifferences(),
  c: (actions, at) => actions.judge(at),
  Delete: (actions, at) => actions.takeOff(at),
};

/** The name under which a cell is found in the page. */
export const cellName = (frame: string, column: number): string => `${frame}/${column}`;

/** Where a key was pressed, told by the cell itself: focus may be newer than what was rendered last. */
export function placeOf(name: string | undefined, frames: readonly string[]): CellPlace | null {
  const [frame = '', column = ''] = (name ?? '').split('/');
  const row = frames.indexOf(frame);
  return row < 0 || column === '' ? null : { row, column: Number(column) };
}

export const keysOf =
  (frames: readonly string[], actions: KeyActions) =>
  (event: KeyboardEvent): void => {
    const at = placeOf((event.target as HTMLElement).dataset.cell, frames);
    const act = bindings[event.key];
    if (!at || !act || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    act(actions, at);
  };
