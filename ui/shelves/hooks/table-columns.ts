'use client';
/** Which columns the table shows, and how wide: the browser remembers it. */
import { useEffect, useState } from 'react';
import { tableColumns, usualColumns, type TableColumn } from '../table-columns';

const KEPT = 'etagere-columns';
export const NARROWEST = 50;
export const WIDEST = 700;

interface Chosen {
  on: readonly string[];
  widths: Readonly<Record<string, number>>;
}

export interface TableColumns {
  shown: TableColumn[];
  isShown: (id: string) => boolean;
  widthOf: (column: TableColumn) => number;
  switchColumn: (id: string) => void;
  setWidth: (id: string, width: number) => void;
}

/** What was kept; null where nothing was, or in a form that is not known any more. */
function readKept(): Chosen | null {
  try {
    const kept = JSON.parse(localStorage.getItem(KEPT) ?? 'null') as Partial<Chosen> | null;
    return kept && Array.isArray(kept.on) ? { on: kept.on, widths: kept.widths ?? {} } : null;
  } catch {
    return null;
  }
}

export function useTableColumns(): TableColumns {
  const [chosen, setChosen] = useState<Chosen>({ on: usualColumns, widths: {} });
  useEffect(() => {
    const kept = readKept();
    if (kept) queueMicrotask(() => setChosen(kept));
  }, []);
  const keep = (next: Chosen) => {
    setChosen(next);
    localStorage.setItem(KEPT, JSON.stringify(next));
  };
  const isShown = (id: string): boolean => chosen.on.includes(id);
  return {
    shown: tableColumns.filter((column) => isShown(column.id)),
    isShown,
    widthOf: (column) => chosen.widths[column.id] ?? column.width,
    switchColumn: (id) => {
      if (id === 'title') return; // a row without its title is no row
      keep({ ...chosen, on: isShown(id) ? chosen.on.filter((one) => one !== id) : [...chosen.on, id] });
    },
    setWidth: (id, width) => {
      const inRange = Math.max(NARROWEST, Math.min(WIDEST, Math.round(width)));
      keep({ ...chosen, widths: { ...chosen.widths, [id]: inRange } });
    },
  };
}
