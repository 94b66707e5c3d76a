/** A ribbon in the list: what it is set on, since when, and whether it is used. */
import { ArrowDown, ArrowUp } from 'lucide-react';
import Link from 'next/link';
import type { DragEvent } from 'react';
import { Selvedge } from '../kit/Selvedge';
import { Ago } from '../kit/time';

export interface Ribbon {
  id: number;
  itemId: string;
  title: string;
  shelf: string;
  kind: string;
  selvedge: [string, string][] | null;
  by: string;
  at: string;
  used: string | null;
  stations: number;
  forgotten: boolean;
}

interface Props {
  ribbon: Ribbon;
  place: number;
  /** the place of the last one */ last: number;
  /** null where nothing may be changed */ chosen: boolean | null;
  onChoose: () => void;
  onMove: (from: number, to: number) => void;
}

/** The kind of data that a dragged ribbon carries: a file or a word that is dropped here moves nothing. */
export const DRAG = 'application/x-etagere-ribbon';

/** What makes a row one that is dragged, and that others are dropped on. */
const dragged = (place: number, onMove: Props['onMove']) => ({
  draggable: true,
  onDragStart: (event: DragEvent) => event.dataTransfer.setData(DRAG, String(place)),
  onDragOver: (event: DragEvent) => {
    if (event.dataTransfer.types.includes(DRAG)) event.preventDefault();
  },
  onDrop: (event: DragEvent) => {
    const from = event.dataTransfer.getData(DRAG);
    if (from && Number(from) !== place) onMove(Number(from), place);
  },
});

export function RibbonRow({ ribbon, place, last, chosen, onChoose, onMove }: Props) {
  const may = chosen !== null;
  return (
    <tr {...(may ? dragged(place, onMove) : {})}>
      {may && (
        <td className="w-[30px]">
          <input
            type="checkbox"
            aria-label={`Choose the ribbon on ${ribbon.title}`}
            checked={chosen}
            onChange={onChoose}
          />
        </td>
      )}
      <td className="w-[54px]">
        <Selvedge threads={ribbon.selvedge} className="h-[30px] w-[38px]" />
      </td>
      <td>
        <Link className="font-serif text-[15px] underline [overflow-wrap:anywhere]" href={`/items/${ribbon.itemId}`}>
          {ribbon.title}
        </Link>
        <span className="block text-[12px] text-soft">
          {ribbon.kind.replace('-', ' ')} on {ribbon.shelf}
        </span>
      </td>
      <td className="whitespace-nowrap text-soft">
        <Ago at={ribbon.at} />, by {ribbon.by}
      </td>
      <td className={`whitespace-nowrap ${ribbon.forgotten ? 'text-ochre' : 'text-soft'}`}>
        <Ago at={ribbon.used} />
      </td>
      <td className="text-right">{ribbon.stations}</td>
      {may && (
        <td className="w-[76px] whitespace-nowrap">
          <button
            className="button quiet !h-6 !px-1"
            aria-label={`${ribbon.title} up`}
            disabled={place === 0}
            onClick={() => onMove(place, place - 1)}
          >
            <ArrowUp aria-hidden size={13} />
          </button>
          <button
            className="button quiet !h-6 !px-1"
            aria-label={`${ribbon.title} down`}
            disabled={place === last}
            onClick={() => onMove(place, place + 1)}
          >
            <ArrowDown aria-hidden size={13} />
          </button>
        </td>
      )}
    </tr>
  );
}
