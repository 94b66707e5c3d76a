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
  function SpineCard({ s: spine, frame, current, chosen, mine, twin, movable, acts, label }: Props) {
    const told = twin || spine.kind === 'camera-profile' ? apart(spine) : '';
    const drop = (event: DragEvent) => {
      const ids = event.dataTransfer.getData(DRAG);
      if (ids) {
        event.preventDefault();
        event.stopPropagation();
        acts.dropBefore(ids.split(','), spine);
      }
    };
    return (
      <div
        className="pt-1"
        onDragOver={(event) => {
          if (movable && event.dataTransfer.types.includes(DRAG)) {
            event.preventDefault();
            event.stopPropagation();
          }
        }}
        onDrop={drop}
      >
        <a
          href={`/items/${spine.id}${frame ? `?frame=${frame}` : ''}`}
          data-spine={spine.id}
          className="spine"
          data-chosen={current}
          draggable={movable}
          onClick={(event) => {
            if (event.button === 0 && !event.metaKey && !event.ctrlKey && !event.shiftKey && !event.altKey) {
              event.preventDefault();
              acts.open(spine);
            }
          }}
          onDragStart={(event) => {
            event.dataTransfer.setData(DRAG, spine.id);
            event.dataTransfer.effectAllowed = 'move';
          }}
          aria-label={`${spine.title}, ${(kindWords[spine.kind] ?? spine.kind).toLowerCase()}${told ? `, ${told}` : ''}, version ${spine.number}, ${spine.status}${spine.fresh ? ', new to you' : ''}${mine ? ', with your ribbon' : ''}${spine.house ? ', with the house ribbon' : ''}${chosen ? ', chosen' : ''}`}
          onFocus={() => acts.at(spine)}
          onMouseMove={(event) => {
            if (event.movementX || event.movementY)
              acts.at(spine); /* and not what is scrolled under a pointer at rest */
          }}
          onKeyDown={(e) => acts.key(e, spine)}
        >
          <Selvedge threads={spine.selvedge} className="h-[80px]" />
          {mine && <i className="ribbon" />}
          {spine.house && <i className="ribbon house" />}
          {(spine.fresh || spine.stale || spine.status !== 'approved') && (
            <span
              className={`absolute left-0 top-[63px] bg-paper py-px pl-2 pr-1.5 text-[11px] font-semibold ${spine.status === 'retired' ? 'text-soft' : 'text-ochre'}`}
            >
              {spine.fresh && <span className="text-verd">new</span>}
              {spine.fresh && (spine.stale || spine.status !== 'approved') && ' '}
              {spine.stale ? 'stale' : spine.status !== 'approved' && spine.status}
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
              {spine.title}
            </span>
            {told && <span className="block truncate text-[11px] text-soft">{told}</span>}
          </span>
          <span className="flex justify-between gap-1 whitespace-nowrap px-2 pb-1.5 text-[11.5px] text-soft">
            <span>
              v{spine.number}
              {spine.variants ? `, ${spine.variants + 1} forms` : ''}
            </span>
            <span className="truncate">{short(spine)}</span>
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
  (readonly, b) =>
    readonly.label?.words === b.label?.words &&
    readonly.label?.reach === b.label?.reach &&
    readonly.s === b.s &&
    readonly.frame === b.frame &&
    readonly.current === b.current &&
    readonly.chosen === b.chosen &&
    readonly.mine === b.mine &&
    readonly.twin === b.twin &&
    readonly.movable === b.movable &&
    readonly.acts === b.acts,
);
