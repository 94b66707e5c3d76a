'use client';
import { useEffect, useRef } from 'react';
import { useBench } from './bench-context';
import { Enlarged } from './Enlarged';
import { LARGE_WIDTH } from './model/cell';

/** The cells that are open, large; closing gives the focus back to where it was. */
export function EnlargedCells() {
  const { state, rows, order, pool, run, nameAt, cellFor } = useBench();
  const { open } = state;
  const back = useRef<Element | null>(null);
  useEffect(() => {
    if (open) back.current ??= document.activeElement;
    else back.current = null;
  }, [open]);
  const row = open && rows[open.row];
  if (!open || !row) return null;
  const close = () => {
    const to = back.current;
    run({ do: 'close' });
    requestAnimationFrame(() => {
      if (to instanceof HTMLElement) to.focus();
    });
  };
  const shown = open.columns.flatMap((index) => {
    const column = state.columns[index];
    return column ? [{ name: nameAt(index), spec: cellFor(row, column, LARGE_WIDTH) }] : [];
  });
  const others = order.filter((index) => !open.columns.includes(index));
  return (
    <Enlarged
      pool={pool}
      title={row.at.name}
      shown={shown}
      others={others.map((column) => ({ column, name: nameAt(column) }))}
      surround={state.surround}
      onAdd={(column) => run({ do: 'put beside', column })}
      onDrop={(place) => run({ do: 'take away', place })}
      onSurround={(gray) => run({ do: 'surround', gray })}
      onClose={close}
    />
  );
}
