'use client';
import { profileOf, topLayer } from '../model/column';
import type { BenchContext } from '../bench-context';
import { cellName, keysOf } from './keys';

/** Moves the focus to a cell, and the cell into view. */
function focusCell(name: string): void {
  const cell = document.querySelector<HTMLElement>(`[data-cell="${name}"]`);
  cell?.focus();
  cell?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
}

/** The keys of the matrix, as the bench is now. */
export function useBenchKeys(bench: BenchContext) {
  const { rows, order, state, run, ask, candidates, may } = bench;
  return keysOf(
    rows.map((row) => row.frame),
    {
      walk: (from, down, right) => {
        const row = rows[from.row + down];
        const column = order[order.indexOf(from.column) + right];
        if (row && column !== undefined) focusCell(cellName(row.frame, column));
      },
      enlarge: (at) => bench.enlarge(at.row, at.column),
      strengthen: (at, by) => {
        // its strength is nothing that one is to know
        if (state.blind) return;
        const column = state.columns[at.column];
        const top = column && topLayer(column);
        if (top && !candidates.get(top.version)?.fixed) run({ do: 'strengthen a column', column: at.column, by });
      },
      makeReference: (at) => run({ do: 'make the reference', column: at.column }),
      switchDifferences: () => run({ do: 'switch differences' }),
      judge: (at) => {
        const column = state.columns[at.column];
        const something = column && (column.layers.length > 0 || profileOf(column));
        if (something && may.judge && at.column !== (state.blind ? state.reference : -1))
          ask({ what: 'judge', column: at.column });
      },
      takeOff: (at) => {
        bench.setTrimming(null);
        run({ do: 'take off a column', column: at.column });
      },
    },
  );
}
