/** How many boards are painted before the page is awake. */

/** Rows of spines that a tall window shows. */
const ROWS = 6;

/**
 * @param counts spines on each board, from the top
 * @returns so many boards fill a tall window, the last of them whole
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
