'use client';
/** The items as a dense table: sorted by a column's head, columns chosen and made wider by hand or key, copied, and taken away as CSV. */
import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { Columns3, Copy, Download } from 'lucide-react';
import Link from 'next/link';
import { DropdownMenu } from 'radix-ui';
import { useEffect, useLayoutEffect, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { Selvedge } from '../kit/Selvedge';
import { State } from '../kit/State';
import { usePages } from './pages';
import { apart, kindWords, type Spine } from './spine';

interface Column {
  id: string;
  title: string;
  width: number;
  sort?: string;
  text: (s: Spine) => string;
  cell?: (s: Spine) => ReactNode;
}
const day = (t: string): string => t.slice(0, 10);
const columns: Column[] = [
  {
    id: 'title',
    title: 'Title',
    width: 260,
    sort: 'title',
    text: (s) => s.title,
    cell: (spine) => (
      <span className="flex items-center gap-2">
        <Selvedge threads={spine.selvedge} className="h-[20px] w-[26px] shrink-0" />
        <Link
          prefetch={false}
          href={`/items/${spine.id}`}
          data-spine={spine.id}
          className="min-w-0 truncate font-serif text-[15px] hover:underline"
        >
          {spine.title}
        </Link>
        {spine.kind === 'camera-profile' && <span className="truncate text-[12px] text-soft">{apart(spine)}</span>}
      </span>
    ),
  },
  { id: 'kind', title: 'Kind', width: 130, sort: 'kind', text: (s) => kindWords[s.kind] ?? s.kind },
  {
    id: 'status',
    title: 'Status',
    width: 100,
    sort: 'status',
    text: (s) => s.status,
    cell: (s) => <State of={s.status} />,
  },
  { id: 'headings', title: 'Headings', width: 170, text: (s) => s.headings.join(' / ') },
  { id: 'shelf', title: 'Shelf', width: 170, sort: 'shelf', text: (s) => s.shelf },
  { id: 'supplier', title: 'Supplier', width: 150, sort: 'supplier', text: (s) => s.supplier || 'own work' },
  { id: 'version', title: 'Version', width: 70, text: (s) => String(s.number) },
  { id: 'cameras', title: 'Cameras', width: 140, text: (s) => s.cameras.join(', ') },
  { id: 'licence', title: 'Licence', width: 150, text: (s) => s.licence ?? '' },
  { id: 'tags', title: 'Tags', width: 140, text: (s) => s.tags.join(', ') },
  { id: 'points', title: 'Points', width: 70, text: (s) => (s.points ? String(s.points) : '') },
  { id: 'stations', title: 'Stations', width: 80, text: (s) => String(s.stations) },
  { id: 'made', title: 'Came', width: 100, sort: 'made', text: (s) => day(s.made) },
  { id: 'changed', title: 'Changed', width: 100, sort: 'changed', text: (s) => day(s.changed) },
];
const usual = ['title', 'kind', 'status', 'headings', 'shelf', 'supplier', 'stations'];
const ROW = 33;

interface Props {
  search: string;
  first: Spine[];
  total: number;
  sort: string;
  down: boolean;
  onSort: (sort: string, down: boolean) => void;
  chosen: ReadonlySet<string>;
  onChoose: (s: Spine) => void;
  onAt: (s: Spine) => void;
  onKey: (e: KeyboardEvent<HTMLElement>, s: Spine) => void;
  onRows: (rows: Spine[]) => void;
  may: boolean;
}

/** Which columns, and how wide, is the browser's to remember. */
function useColumns(): {
  shown: Column[];
  width: (c: Column) => number;
  flip: (id: string) => void;
  widen: (id: string, to: number) => void;
  has: (id: string) => boolean;
} {
  const [state, setState] = useState<{ on: string[]; widths: Record<string, number> }>({ on: usual, widths: {} });
  useEffect(() => {
    const kept = localStorage.getItem('etagere-columns');
    if (kept)
      try {
        const s = JSON.parse(kept) as typeof state;
        if (Array.isArray(s.on)) queueMicrotask(() => setState({ on: s.on, widths: s.widths ?? {} }));
      } catch {
        /* an older form; the usual columns then */
      }
  }, []);
  const keep = (s: typeof state) => {
    setState(s);
    localStorage.setItem('etagere-columns', JSON.stringify(s));
  };
  return {
    shown: columns.filter((c) => state.on.includes(c.id)),
    width: (c) => state.widths[c.id] ?? c.width,
    has: (id) => state.on.includes(id),
    flip: (id) =>
      keep({
        ...state,
        on: id === 'title' ? state.on : state.on.includes(id) ? state.on.filter((x) => x !== id) : [...state.on, id],
      }),
    widen: (id, to) =>
      keep({ ...state, widths: { ...state.widths, [id]: Math.max(50, Math.min(700, Math.round(to))) } }),
  };
}

export function Table({ search, first, total, sort, down, onSort, chosen, onChoose, onAt, onKey, onRows, may }: Props) {
  const body = useRef<HTMLDivElement>(null);
  const [top, setTop] = useState(0);
  const [said, setSaid] = useState('');
  const pages = usePages(search, first, total);
  const c = useColumns();
  useLayoutEffect(() => {
    if (body.current) setTop(body.current.getBoundingClientRect().top + window.scrollY);
  }, []);
  const reactVirtualizer = useWindowVirtualizer({
    count: pages.length,
    estimateSize: () => ROW,
    overscan: 12,
    scrollMargin: top,
  });
  const rows = reactVirtualizer.getVirtualItems();
  const from = rows[0]?.index ?? 0;
  const to = rows[rows.length - 1]?.index ?? 0;
  useEffect(() => {
    pages.need(from, to);
  }, [pages, from, to]);
  const inView = rows.map((r) => pages.at(r.index)).filter((s): s is Spine => !!s);
  const key = inView.map((s) => s.id).join();
  useEffect(() => {
    const timer = setTimeout(() => onRows(inView), 120);
    return () => clearTimeout(timer);
  }, [key]); // eslint-disable-line react-hooks/exhaustive-deps
  const grid = `${may ? '28px ' : ''}${c.shown.map((x) => `${c.width(x)}px`).join(' ')}`;
  const copy = async () => {
    const list: Spine[] = [];
    for (let i = 0; i < pages.length && i < 1000; i++) {
      const spine = pages.at(i);
      if (spine) list.push(spine);
    }
    await navigator.clipboard.writeText(
      [c.shown.map((x) => x.title), ...list.map((s) => c.shown.map((x) => x.text(s).replace(/[\t\n]/g, ' ')))]
        .map((l) => l.join('\t'))
        .join('\n'),
    );
    setSaid(`${list.length} rows copied`);
  };
  const drag = (col: Column) => (event: React.PointerEvent) => {
    const x = event.clientX;
    const w = c.width(col);
    const el = event.currentTarget;
    el.setPointerCapture(event.pointerId);
    const move = (m: Event) => c.widen(col.id, w + (m as PointerEvent).clientX - x);
    el.addEventListener('pointermove', move);
    el.addEventListener('pointerup', () => el.removeEventListener('pointermove', move), { once: true });
  };
  return (
    <div>
      <div className="mb-1 flex items-center gap-2">
        <DropdownMenu.Root modal={false}>
          <DropdownMenu.Trigger className="button quiet">
            <Columns3 aria-hidden size={14} />
            Columns
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content
              align="start"
              className="z-40 border border-line bg-paper py-1"
              style={{ boxShadow: 'var(--shade)' }}
            >
              {columns
                .filter((x) => x.id !== 'title')
                .map((column) => (
                  <DropdownMenu.CheckboxItem
                    key={column.id}
                    checked={c.has(column.id)}
                    onCheckedChange={() => c.flip(column.id)}
                    onSelect={(e) => e.preventDefault()}
                    className="flex cursor-default items-center gap-2 px-3 py-1.5 outline-none data-[highlighted]:bg-verd-wash"
                  >
                    <span aria-hidden className="w-4">
                      {c.has(column.id) ? '✓' : ''}
                    </span>
                    {column.title}
                  </DropdownMenu.CheckboxItem>
                ))}
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
        <button className="button quiet" onClick={() => void copy()}>
          <Copy aria-hidden size={14} />
          Copy
        </button>
        <a className="button quiet" href={`/api/items/csv?${search}`} download>
          <Download aria-hidden size={14} />
          CSV
        </a>
        <span role="status" className="text-soft">
          {said}
        </span>
      </div>
      <div role="table" aria-label="Items" aria-rowcount={pages.length} className="overflow-x-auto">
        <div role="rowgroup">
          <div
            role="row"
            className="sticky top-0 grid border-b border-line-strong text-[12px] text-soft"
            style={{ gridTemplateColumns: grid }}
          >
            {may && (
              <span role="columnheader">
                <span className="sr-only">Chosen</span>
              </span>
            )}
            {c.shown.map((column) => (
              <span
                key={column.id}
                role="columnheader"
                aria-sort={sort === column.sort && column.sort ? (down ? 'descending' : 'ascending') : 'none'}
                className="relative flex items-center py-1.5 pr-3"
              >
                {column.sort ? (
                  <button
                    className={`truncate ${sort === column.sort ? 'font-semibold text-ink' : ''}`}
                    onClick={() => onSort(column.sort!, sort === column.sort ? !down : false)}
                  >
                    {column.title}
                    {sort === column.sort ? (down ? ' ↓' : ' ↑') : ''}
                  </button>
                ) : (
                  <span className="truncate">{column.title}</span>
                )}
                <span
                  role="separator"
                  tabIndex={0}
                  aria-orientation="vertical"
                  aria-label={`Width of ${column.title}`}
                  aria-valuenow={c.width(column)}
                  aria-valuemin={50}
                  aria-valuemax={700}
                  className="absolute right-[5px] top-1 h-[70%] w-[7px] cursor-col-resize border-r border-line"
                  onPointerDown={drag(column)}
                  onKeyDown={(event) => {
                    if (event.key === 'ArrowLeft' || event.key === 'ArrowRight') {
                      event.preventDefault();
                      c.widen(column.id, c.width(column) + (event.key === 'ArrowRight' ? 16 : -16));
                    }
                  }}
                />
              </span>
            ))}
          </div>
        </div>
        <div ref={body} role="rowgroup" className="relative" style={{ height: reactVirtualizer.getTotalSize() }}>
          {rows.map((virtualItem) => {
            const spine = pages.at(virtualItem.index);
            return (
              <div
                key={virtualItem.key}
                role="row"
                aria-rowindex={virtualItem.index + 1}
                className="absolute left-0 grid items-center border-b border-line hover:bg-sheet"
                style={{
                  top: 0,
                  height: ROW,
                  gridTemplateColumns: grid,
                  transform: `translateY(${virtualItem.start - top}px)`,
                }}
                onMouseMove={(event) => {
                  if (spine && (event.movementX || event.movementY)) onAt(spine);
                }}
                onFocus={() => spine && onAt(spine)}
                onKeyDown={(e) => spine && onKey(e, spine)}
              >
                {spine ? (
                  <>
                    {may && (
                      <span role="cell">
                        <input
                          type="checkbox"
                          aria-label={`Choose ${spine.title}`}
                          checked={chosen.has(spine.id)}
                          onChange={() => onChoose(spine)}
                        />
                      </span>
                    )}
                    {c.shown.map((column) => (
                      <span key={column.id} role="cell" className="min-w-0 truncate pr-3">
                        {column.cell ? column.cell(spine) : column.text(spine)}
                      </span>
                    ))}
                  </>
                ) : (
                  <span role="cell" className="h-3 w-40 animate-pulse bg-press" />
                )}
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}
