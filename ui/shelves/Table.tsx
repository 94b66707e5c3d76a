'use client';
/** The items as a dense table: sorted by a column's head, columns chosen and made wider by hand or key, copied, and taken away as CSV. */
import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useLayoutEffect, useRef, useState, type KeyboardEvent } from 'react';
import { usePages } from './hooks/pages';
import { useTableColumns } from './hooks/table-columns';
import type { Spine } from './model/spine';
import { tabStop } from './model/tab-stop';
import { TableBar } from './TableBar';
import { TableHead } from './TableHead';
import { ROW_HEIGHT, TableRow } from './TableRow';

interface Props {
  search: string;
  first: Spine[];
  total: number;
  sort: string;
  down: boolean;
  onSort: (sort: string, down: boolean) => void;
  current: Spine | undefined;
  chosen: ReadonlySet<string>;
  onChoose: (spine: Spine) => void;
  onAt: (spine: Spine) => void;
  onKey: (event: KeyboardEvent<HTMLElement>, spine: Spine) => void;
  /** what is in view, once scrolling rests */ onRows: (rows: Spine[]) => void;
  /** rows can be chosen */ may: boolean;
}

const RESTED_MS = 120;

export function Table(props: Props) {
  const { search, first, total, sort, down, onSort, current, chosen, onChoose, onAt, onKey, onRows, may } = props;
  const head = useRef<HTMLDivElement>(null);
  const body = useRef<HTMLDivElement>(null);
  const [top, setTop] = useState(0);
  const pages = usePages(search, first, total);
  const columns = useTableColumns();
  useLayoutEffect(() => {
    if (body.current) setTop(body.current.getBoundingClientRect().top + window.scrollY);
  }, []);
  const virtualizer = useWindowVirtualizer({
    count: pages.length,
    estimateSize: () => ROW_HEIGHT,
    overscan: 12,
    scrollMargin: top,
  });
  const lines = virtualizer.getVirtualItems();
  const from = lines[0]?.index ?? 0;
  const to = lines[lines.length - 1]?.index ?? 0;
  useEffect(() => {
    pages.need(from, to);
  }, [pages, from, to]);
  const inView = lines.flatMap((line) => pages.at(line.index) ?? []);
  const ids = inView.map((spine) => spine.id).join();
  useEffect(() => {
    const timer = setTimeout(() => onRows(inView), RESTED_MS);
    return () => clearTimeout(timer);
  }, [ids]); // eslint-disable-line react-hooks/exhaustive-deps -- by what is in view, not by the array
  const stop = tabStop(inView, current);
  const widths = columns.shown.map((column) => `${columns.widthOf(column)}px`);
  const grid = [...(may ? ['28px'] : []), ...widths].join(' ');
  return (
    <div>
      <TableBar columns={columns} pages={pages} search={search} />
      <div role="table" aria-label="Items" aria-rowcount={pages.length}>
        <div ref={head} className="sticky top-[52px] z-10 overflow-hidden bg-wall">
          <TableHead columns={columns} grid={grid} sort={sort} down={down} onSort={onSort} may={may} />
        </div>
        <div
          className="overflow-x-auto"
          onScroll={(event) => {
            // the head stays in sight, and goes sideways with the rows
            if (head.current) head.current.scrollLeft = event.currentTarget.scrollLeft;
          }}
        >
          <div ref={body} role="rowgroup" className="relative" style={{ height: virtualizer.getTotalSize() }}>
            {lines.map((line) => {
              const spine = pages.at(line.index);
              return (
                <TableRow
                  key={line.key}
                  index={line.index}
                  offset={line.start - top}
                  grid={grid}
                  columns={columns.shown}
                  spine={spine}
                  isStop={spine !== undefined && spine === stop}
                  chosen={may ? !!spine && chosen.has(spine.id) : null}
                  onChoose={onChoose}
                  onAt={onAt}
                  onKey={onKey}
                />
              );
            })}
          </div>
        </div>
      </div>
    </div>
  );
}
