'use client';
import type { KeyboardEvent } from 'react';
import type { Spine } from './model/spine';
import type { TableColumn } from './table-columns';

export const ROW_HEIGHT = 33;

interface Props {
  index: number;
  /** from the top of the table's body, in pixels */ offset: number;
  grid: string;
  columns: readonly TableColumn[];
  /** undefined while its page is on its way */ spine: Spine | undefined;
  /** the row that Tab comes to */ isStop: boolean;
  /** null where rows cannot be chosen */ chosen: boolean | null;
  onChoose: (spine: Spine) => void;
  onAt: (spine: Spine) => void;
  onKey: (event: KeyboardEvent<HTMLElement>, spine: Spine) => void;
}

export function TableRow({ index, offset, grid, columns, spine, isStop, chosen, onChoose, onAt, onKey }: Props) {
  return (
    <div
      role="row"
      aria-rowindex={index + 1}
      className="absolute left-0 grid items-center border-b border-line hover:bg-sheet"
      style={{ top: 0, height: ROW_HEIGHT, gridTemplateColumns: grid, transform: `translateY(${offset}px)` }}
      onMouseMove={(event) => {
        if (spine && (event.movementX || event.movementY)) onAt(spine);
      }}
      onFocus={() => spine && onAt(spine)}
      onKeyDown={(event) => spine && onKey(event, spine)}
    >
      {!spine && <span role="cell" className="h-3 w-40 animate-pulse bg-press" />}
      {spine && chosen !== null && (
        <span role="cell">
          <input
            type="checkbox"
            aria-label={`Choose ${spine.title}`}
            checked={chosen}
            tabIndex={isStop ? 0 : -1}
            onChange={() => onChoose(spine)}
          />
        </span>
      )}
      {spine &&
        columns.map((column) => (
          <span key={column.id} role="cell" className="min-w-0 truncate pr-3">
            {column.cell ? column.cell(spine, isStop) : column.text(spine)}
          </span>
        ))}
    </div>
  );
}
