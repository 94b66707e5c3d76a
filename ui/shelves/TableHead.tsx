'use client';
/** The heads of the columns: they sort, and their edges are dragged or moved by arrows. */
import type { KeyboardEvent, PointerEvent } from 'react';
import { NARROWEST, WIDEST, type TableColumns } from './hooks/table-columns';
import type { TableColumn } from './table-columns';

interface Props {
  columns: TableColumns;
  grid: string;
  sort: string;
  down: boolean;
  onSort: (sort: string, down: boolean) => void;
  may: boolean;
}

export function TableHead({ columns, grid, sort, down, onSort, may }: Props) {
  return (
    <div role="rowgroup">
      <div
        role="row"
        className="grid border-b border-line-strong text-[12px] text-soft"
        style={{ gridTemplateColumns: grid }}
      >
        {may && (
          <span role="columnheader">
            <span className="sr-only">Chosen</span>
          </span>
        )}
        {columns.shown.map((column) => {
          const sorted = column.sort !== undefined && column.sort === sort;
          return (
            <span
              key={column.id}
              role="columnheader"
              aria-sort={sorted ? directionOf(down) : 'none'}
              className="relative flex items-center py-1.5 pr-3"
            >
              <Title column={column} sorted={sorted} down={down} onSort={onSort} />
              <Edge column={column} columns={columns} />
            </span>
          );
        })}
      </div>
    </div>
  );
}

const directionOf = (down: boolean): 'ascending' | 'descending' => (down ? 'descending' : 'ascending');

interface TitleProps {
  column: TableColumn;
  sorted: boolean;
  down: boolean;
  onSort: Props['onSort'];
}

function Title({ column, sorted, down, onSort }: TitleProps) {
  const { sort, title } = column;
  if (!sort) return <span className="truncate">{title}</span>;
  const arrow = down ? ' ↓' : ' ↑';
  return (
    <button
      className={`truncate ${sorted ? 'font-semibold text-ink' : ''}`}
      onClick={() => onSort(sort, sorted ? !down : false)}
    >
      {title}
      {sorted ? arrow : ''}
    </button>
  );
}

const KEY_STEP = 16;

function Edge({ column, columns }: { column: TableColumn; columns: TableColumns }) {
  const width = columns.widthOf(column);
  const drag = (event: PointerEvent<HTMLElement>) => {
    const from = event.clientX;
    const edge = event.currentTarget;
    edge.setPointerCapture(event.pointerId);
    const move = (moved: globalThis.PointerEvent) => columns.setWidth(column.id, width + moved.clientX - from);
    edge.addEventListener('pointermove', move);
    edge.addEventListener('pointerup', () => edge.removeEventListener('pointermove', move), { once: true });
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return;
    event.preventDefault();
    columns.setWidth(column.id, width + (event.key === 'ArrowRight' ? KEY_STEP : -KEY_STEP));
  };
  return (
    <span
      role="separator"
      tabIndex={0}
      aria-orientation="vertical"
      aria-label={`Width of ${column.title}`}
      aria-valuenow={width}
      aria-valuemin={NARROWEST}
      aria-valuemax={WIDEST}
      className="absolute right-[5px] top-1 h-[70%] w-[7px] cursor-col-resize border-r border-line"
      onPointerDown={drag}
      onKeyDown={onKey}
    />
  );
}
