'use client';
/** Which columns the table shows; its rows copied or taken away. */
import { Columns3, Copy, Download } from 'lucide-react';
import { useState } from 'react';
import { Menu, MenuSwitch } from '../kit/Menu';
import type { TableColumns } from './hooks/table-columns';
import type { Spine } from './model/spine';
import { tableColumns } from './table-columns';

/** More rows than these are for CSV. */
const MOST_COPIED = 1000;

interface Props {
  columns: TableColumns;
  pages: { at: (index: number) => Spine | undefined; length: number };
  search: string;
}

export function TableBar({ columns, pages, search }: Props) {
  const [said, setSaid] = useState('');
  const copy = async () => {
    const places = Array.from({ length: Math.min(pages.length, MOST_COPIED) }, (_, i) => i);
    const spines = places.flatMap((place) => pages.at(place) ?? []);
    const lines = [
      columns.shown.map((column) => column.title),
      ...spines.map((spine) => columns.shown.map((column) => column.text(spine).replace(/[\t\n]/g, ' '))),
    ];
    await navigator.clipboard.writeText(lines.map((line) => line.join('\t')).join('\n'));
    setSaid(`${spines.length} rows copied`);
  };
  return (
    <div className="mb-1 flex items-center gap-2">
      <ColumnsMenu columns={columns} />
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
  );
}

const ColumnsMenu = ({ columns }: { columns: TableColumns }) => (
  <Menu title="Columns" before={<Columns3 aria-hidden size={14} />} className="button quiet" align="start">
    {tableColumns
      .filter((column) => column.id !== 'title')
      .map((column) => (
        <MenuSwitch
          key={column.id}
          words={column.title}
          on={columns.isShown(column.id)}
          onSwitch={() => columns.switchColumn(column.id)}
        />
      ))}
  </Menu>
);
