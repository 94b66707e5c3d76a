'use client';
import { memo, type DragEvent, type KeyboardEvent } from 'react';
import { Selvedge } from '../kit/Selvedge';
import type { Label } from './headings';
import { apart, kindWords, short, type Spine } from './spine';

/** What a spine answers to; one object for all, so that a spine is painted again only when it changes. */
export interface SpineActs {
  open: (s: Spine) => void;
  at: (s: Spine) => void;
  key: (e: KeyboardEvent<HTMLElement>, s: Spine) => void;
  dropBefore: (ids: string[], s: Spine) => void;
}
interface Props {
  s: Spine;
  frame: string | null;
  current: boolean;
  chosen: boolean;
  mine: boolean;
  twin: boolean;
  movable: boolean;
  acts: SpineActs;
  /** where the board's edge bears headings: those that begin here */ label: Label | null;
}

export const DRAG = 'application/x-etagere-items';

/** One item on its ledge. Where another bears its name, its camera and source are said. */
export const SpineCard = memo(
  function SpineCard({ s, frame, current, chosen, mine, twin, movable, acts, label }: Props) {
    const told = twin || s.kind === 'camera-profile' ? apart(s) : '';
    const drop = (e: DragEvent) => {
      const ids = e.dataTransfer.getData(DRAG);
      if (ids) {
        e.preventDefault();
        e.stopPropagation();
        acts.dropBefore(ids.split(','), s);
      }
    };
    return (
      <div
        className="pt-1"
        onDragOver={(e) => {
          if (movable && e.dataTransfer.types.includes(DRAG)) {
            e.preventDefault();
            e.stopPropagation();
          }
        }}
        onDrop={drop}
      >
        <a
          href={`/items/${s.id}${frame ? `?frame=${frame}` : ''}`}
          data-spine={s.id}
          className="spine"
          data-chosen={current}
          draggable={movable}
          onClick={(e) => {
            if (e.button === 0 && !e.metaKey && !e.ctrlKey && !e.shiftKey && !e.altKey) {
              e.preventDefault();
              acts.open(s);
            }
          }}
          onDragStart={(e) => {
            e.dataTransfer.setData(DRAG, s.id);
            e.dataTransfer.effectAllowed = 'move';
          }}
          aria-label={`${s.title}, ${(kindWords[s.kind] ?? s.kind).toLowerCase()}${told ? `, ${told}` : ''}, version ${s.number}, ${s.status}${s.fresh ? ', new to you' : ''}${mine ? ', with your ribbon' : ''}${s.house ? ', with the house ribbon' : ''}${chosen ? ', chosen' : ''}`}
          onFocus={() => acts.at(s)}
          onMouseMove={(e) => {
            if (e.movementX || e.movementY) acts.at(s); /* and not what is scrolled under a pointer at rest */
          }}
          onKeyDown={(e) => acts.key(e, s)}
        >
          <Selvedge threads={s.selvedge} className="h-[80px]" />
          {mine && <i className="ribbon" />}
          {s.house && <i className="ribbon house" />}
          {(s.fresh || s.stale || s.status !== 'approved') && (
            <span
              className={`absolute left-0 top-[63px] bg-paper py-px pl-2 pr-1.5 text-[11px] font-semibold ${s.status === 'retired' ? 'text-soft' : 'text-ochre'}`}
            >
              {s.fresh && <span className="text-verd">new</span>}
              {s.fresh && (s.stale || s.status !== 'approved') && ' '}
              {s.stale ? 'stale' : s.status !== 'approved' && s.status}
            </span>
          )}
          {chosen && (
            <span className="absolute left-1.5 top-1.5 bg-verd px-1.5 text-[11px] font-semibold text-verd-ink">
              chosen
            </span>
          )}
          <span className="min-h-0 flex-1 px-2 pt-1.5">
            <span
              className={`font-serif text-[14.5px] font-medium leading-[1.14] [overflow-wrap:anywhere] ${told ? 'line-clamp-2' : 'line-clamp-3'}`}
            >
              {s.title}
            </span>
            {told && <span className="block truncate text-[11px] text-soft">{told}</span>}
          </span>
          <span className="flex justify-between gap-1 whitespace-nowrap px-2 pb-1.5 text-[11.5px] text-soft">
            <span>
              v{s.number}
              {s.variants ? `, ${s.variants + 1} forms` : ''}
            </span>
            <span className="truncate">{short(s)}</span>
          </span>
        </a>
        <div className="ledge -mx-1.5" />
        {label && (
          <div className="relative h-[17px]">
            {label.words && (
              <span
                data-headings
                className="absolute left-0 top-0 truncate border border-t-0 border-line-strong bg-paper px-1.5 text-[11px] leading-[15px] text-soft"
                style={{ maxWidth: label.reach * 128 - 12 }}
                title={label.words}
              >
                {label.words}
              </span>
            )}
          </div>
        )}
      </div>
    );
  },
  (a, b) =>
    a.label?.words === b.label?.words &&
    a.label?.reach === b.label?.reach &&
    a.s === b.s &&
    a.frame === b.frame &&
    a.current === b.current &&
    a.chosen === b.chosen &&
    a.mine === b.mine &&
    a.twin === b.twin &&
    a.movable === b.movable &&
    a.acts === b.acts,
);
