/** The columns that the table can have. */
import Link from 'next/link';
import type { ReactNode } from 'react';
import { Selvedge } from '../kit/Selvedge';
import { State } from '../kit/State';
import { apart, kindWords, type Spine } from './model/spine';

export interface TableColumn {
  id: string;
  title: string;
  /** in pixels, until someone makes it wider */ width: number;
  /** what the server sorts by, for a column that sorts */ sort?: string;
  text: (spine: Spine) => string;
  /** for a column that shows more than its text; Tab comes to one row alone */
  cell?: (spine: Spine, isStop: boolean) => ReactNode;
}

const day = (time: string): string => time.slice(0, 10);

function TitleCell({ spine, isStop }: { spine: Spine; isStop: boolean }) {
  return (
    <span className="flex items-center gap-2">
      <Selvedge threads={spine.selvedge} className="h-[20px] w-[26px] shrink-0" />
      <Link
        prefetch={false}
        href={`/items/${spine.id}`}
        data-spine={spine.id}
        tabIndex={isStop ? 0 : -1}
        className="min-w-0 truncate font-serif text-[15px] hover:underline"
      >
        {spine.title}
      </Link>
      {spine.kind === 'camera-profile' && <span className="truncate text-[12px] text-soft">{apart(spine)}</span>}
    </span>
  );
}

export const tableColumns: readonly TableColumn[] = [
  {
    id: 'title',
    title: 'Title',
    width: 260,
    sort: 'title',
    text: (spine) => spine.title,
    cell: (spine, isStop) => <TitleCell spine={spine} isStop={isStop} />,
  },
  { id: 'short', title: 'Short title', width: 120, text: (spine) => spine.shortTitle },
  {
    id: 'position',
    title: 'Position',
    width: 80,
    sort: 'position',
    text: (spine) => (spine.position ? String(spine.position) : ''),
  },
  { id: 'kind', title: 'Kind', width: 130, sort: 'kind', text: (spine) => kindWords[spine.kind] ?? spine.kind },
  {
    id: 'status',
    title: 'Status',
    width: 100,
    sort: 'status',
    text: (spine) => spine.status,
    cell: (spine) => <State of={spine.status} />,
  },
  { id: 'headings', title: 'Headings', width: 170, text: (spine) => spine.headings.join(' / ') },
  { id: 'shelf', title: 'Shelf', width: 170, sort: 'shelf', text: (spine) => spine.shelf },
  { id: 'supplier', title: 'Supplier', width: 150, sort: 'supplier', text: (spine) => spine.supplier || 'own work' },
  { id: 'version', title: 'Version', width: 70, text: (spine) => String(spine.number) },
  { id: 'cameras', title: 'Cameras', width: 140, text: (spine) => spine.cameras.join(', ') },
  { id: 'licence', title: 'Licence', width: 150, text: (spine) => spine.licence ?? '' },
  { id: 'tags', title: 'Tags', width: 140, text: (spine) => spine.tags.join(', ') },
  { id: 'points', title: 'Points', width: 70, text: (spine) => (spine.points ? String(spine.points) : '') },
  { id: 'stations', title: 'Stations', width: 80, text: (spine) => String(spine.stations) },
  { id: 'made', title: 'Came', width: 100, sort: 'made', text: (spine) => day(spine.made) },
  { id: 'changed', title: 'Changed', width: 100, sort: 'changed', text: (spine) => day(spine.changed) },
];

/** Those that are shown until someone chooses others. */
export const usualColumns: readonly string[] = ['title', 'kind', 'status', 'headings', 'shelf', 'supplier', 'stations'];
