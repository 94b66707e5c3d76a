/** What is painted of the boards before the page is awake. */

/** Rows of spines that a window of 1,000 px shows; in a taller one the last of them come when the page is awake. */
const ROWS = 4;

/**
 * @param counts spines on each board, from the top
 * @returns so many boards fill a window, the last of them whole
 */
export function boardsInWindow(counts: readonly number[], columns: number): number {
  let rows = 0;
  let boards = 0;
  while (boards < counts.length && rows < ROWS) {
    rows += Math.max(1, Math.ceil((counts[boards] ?? 0) / columns));
    boards++;
  }
  return boards;
}

/** Boards below the window whose names are painted with it. */
const BELOW = 8;
/** About how high a board is. */
const BOARD_PX = 240;

export interface FirstPaint {
  /** so many boards are painted whole */ whole: number;
  /** so many with these, the others by their names alone */ named: number;
  /** the height of those that follow once the page is awake: a place in it that is gone back to is there */ restPx: number;
}

/** @param counts spines on each board, from the top */
export function firstPaint(counts: readonly number[], columns: number): FirstPaint {
  const whole = boardsInWindow(counts, columns);
  const named = Math.min(counts.length, whole + BELOW);
  return { whole, named, restPx: (counts.length - named) * BOARD_PX };
}
