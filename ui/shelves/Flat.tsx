'use client';
/** One long shelf: rows of spines, of which only those in view are there. */
import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useLayoutEffect, useRef, useState, type ReactNode } from 'react';
import { usePages } from './pages';
import type { Spine } from './spine';

const ROW = 175, CELL = 128;

export function Flat({ search, first, total, render, onRows }: { search: string; first: Spine[]; total: number; render: (s: Spine) => ReactNode; onRows: (rows: Spine[]) => void }) {
  const box = useRef<HTMLDivElement>(null), [columns, setColumns] = useState(6), [top, setTop] = useState(0), pages = usePages(search, first, total);
  useLayoutEffect(() => {
    const measure = () => { const b = box.current; if (b) { setColumns(Math.max(1, Math.floor((b.clientWidth + 12) / CELL))); setTop(b.getBoundingClientRect().top + window.scrollY); } };
    measure();
    window.addEventListener('resize', measure);
    return () => window.removeEventListener('resize', measure);
  }, []);
  const v = useWindowVirtualizer({ count: Math.ceil(pages.length / columns), estimateSize: () => ROW, overscan: 3, scrollMargin: top, useFlushSync: false }), rows = v.getVirtualItems();
  const from = (rows[0]?.index ?? 0) * columns, to = ((rows[rows.length - 1]?.index ?? 0) + 1) * columns - 1;
  useEffect(() => { pages.need(from, Math.min(to, pages.length - 1)); }, [pages, from, to]);
  const inView = Array.from({ length: Math.max(0, to - from + 1) }, (_, k) => pages.at(from + k)).filter((s): s is Spine => !!s), key = inView.map((s) => s.id).join();
  useEffect(() => { const t = setTimeout(() => onRows(inView), 120); return () => clearTimeout(t); /* by what is in view, not by the array, and once the scrolling rests */ }, [key]); // eslint-disable-line react-hooks/exhaustive-deps
  return (
    <div ref={box} className="relative" style={{ height: v.getTotalSize() }} data-long-shelf={pages.length}>
      {rows.map((r) => (
        <div key={r.key} className="absolute left-0 flex gap-x-3" style={{ top: r.start - top, width: columns * CELL, height: ROW }}>
          {Array.from({ length: columns }, (_, c) => r.index * columns + c).filter((i) => i < pages.length).map((i) => { const s = pages.at(i); return s ? render(s) : <div key={i} className="pt-1"><div className="spine animate-pulse" /><div className="ledge -mx-1.5" /></div>; })}
        </div>))}
    </div>
  );
}
