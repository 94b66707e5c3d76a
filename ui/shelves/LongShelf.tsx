'use client';
/** One long shelf: rows of spines, of which only those in view are there. */
import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, useState, type ReactNode, type RefObject } from 'react';
import { labelsOf, type Label } from './model/headings';
import { usePages } from './hooks/pages';
import { tabStop } from './model/tab-stop';
import type { Spine } from './model/spine';

const PLAIN = 175;
const LABELLED = 192;
const CELL = 128;

export function LongShelf({
  search,
  first,
  total,
  labelled,
  columns,
  render,
  current,
  onRows,
}: {
  search: string;
  first: Spine[];
  total: number;
  /** in the shelf's own order: headings stand on the edge of the board */ labelled: boolean;
  columns: number;
  render: (s: Spine, standing: { label: Label | null; isStop: boolean }) => ReactNode;
  current: Spine | undefined;
  onRows: (rows: Spine[]) => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const [top, setTop] = useState(0);
  const pages = usePages(search, first, total);
  const headed = labelled && first.some((s) => s.headings.length > 0);
  const ROW = headed ? LABELLED : PLAIN;
  useEffect(() => {
    const measure = () => {
      if (box.current) setTop(box.current.getBoundingClientRect().top + window.scrollY);
    };
    measure();
    window.addEventListener('resize', measure);
    return () => window.removeEventListener('resize', measure);
  }, []);
  const virtualizer = useWindowVirtualizer({
    count: Math.ceil(pages.length / columns),
    estimateSize: () => ROW,
    overscan: 3,
    scrollMargin: top,
    useFlushSync: false,
  });
  const rows = virtualizer.getVirtualItems();
  const from = (rows[0]?.index ?? 0) * columns;
  const to = ((rows[rows.length - 1]?.index ?? 0) + 1) * columns - 1;
  useEffect(() => {
    pages.need(from, Math.min(to, pages.length - 1));
  }, [pages, from, to]);
  const inView = Array.from({ length: Math.max(0, to - from + 1) }, (_, k) => pages.at(from + k)).filter(
    (s): s is Spine => !!s,
  );
  const stop = tabStop(inView, current);
  const key = inView.map((s) => s.id).join();
  useEffect(() => {
    const timer = setTimeout(() => onRows(inView), 120);
    return () => clearTimeout(timer); /* by what is in view, not by the array, and once the scrolling rests */
  }, [key]); // eslint-disable-line react-hooks/exhaustive-deps -- the key tells what is in view
  return (
    <div ref={box} className="relative" style={{ height: virtualizer.getTotalSize() }} data-long-shelf={pages.length}>
      {rows.map((line) => {
        const row = Array.from({ length: Math.min(columns, pages.length - line.index * columns) }, (_, c) =>
          pages.at(line.index * columns + c),
        );
        const labels = headed ? labelsOf(row, columns) : null;
        return (
          <div
            key={line.key}
            className="absolute left-0 flex gap-x-3"
            style={{ top: line.start - top, width: columns * CELL, height: ROW }}
          >
            {row.map((spine, c) =>
              spine ? (
                render(spine, { label: labels?.[c] ?? null, isStop: spine === stop })
              ) : (
                <div key={c} className="pt-1">
                  <div className="spine animate-pulse" />
                  <div className="ledge -mx-1.5" />
                </div>
              ),
            )}
          </div>
        );
      })}
    </div>
  );
}

/** How many spines stand side by side in a box. */
export function useColumns(box: RefObject<HTMLElement | null>): number {
  const [columns, setColumns] = useState(7);
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => {
      if (entry) setColumns(Math.max(1, Math.floor((entry.contentRect.width + 12) / CELL)));
    });
    if (box.current) watch.observe(box.current);
    return () => watch.disconnect();
  }, [box]);
  return columns;
}
