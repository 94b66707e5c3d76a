'use client';
/** One item on its ledge. Where another bears its name, its camera and source are said. */
import { memo, type DragEvent, type KeyboardEvent, type MouseEvent } from 'react';
import { Selvedge } from '../kit/Selvedge';
import type { Label } from './model/headings';
import { apart, kindWords, short, type Spine } from './model/spine';

/** What a spine answers to; one object for all, so that a spine is painted again only when it changes. */
export interface SpineActs {
  open: (spine: Spine) => void;
  lookAt: (spine: Spine) => void;
  onKey: (event: KeyboardEvent<HTMLElement>, spine: Spine) => void;
  dropBefore: (ids: string[], spine: Spine) => void;
  /** chooses all between the last that was chosen and this one; whether anything is chosen here at all */
  chooseTo: (spine: Spine) => boolean;
}
interface Props {
  spine: Spine;
  frame: string | null;
  current: boolean;
  chosen: boolean;
  mine: boolean;
  /** another spine bears the same title */ twin: boolean;
  /** the one of its board that Tab comes to; arrows lead to the others */ isStop: boolean;
  movable: boolean;
  acts: SpineActs;
  /** where the board's edge bears headings: those that begin here */ label: Label | null;
  /** folds what stands under these headings */ onFold: (() => void) | null;
}

/** The kind of data that a dragged spine carries. */
export const DRAG = 'application/x-etagere-items';
/** From one spine to the next, in pixels. */
const STEP = 128;

const sameLabel = (a: Label | null, b: Label | null): boolean => a?.words === b?.words && a?.reach === b?.reach;

/** All but the label are told by themselves; labels are made anew for each painting. */
function isSame(before: Props, after: Props): boolean {
  const keys = Object.keys(after) as (keyof Props)[];
  const isTold = (key: keyof Props): boolean => key === 'label' || key === 'onFold' || before[key] === after[key];
  return sameLabel(before.label, after.label) && keys.every(isTold);
}

export const SpineCard = memo(function SpineCard(props: Props) {
  const { spine, frame, current, isStop, movable, acts, label, onFold } = props;
  return (
    <div className="pt-1" {...dropsBefore(props)}>
      <a
        href={`/items/${spine.id}${frame ? `?frame=${frame}` : ''}`}
        data-spine={spine.id}
        tabIndex={isStop ? 0 : -1}
        className="spine"
        data-chosen={current}
        draggable={movable}
        onClick={(event) => {
          if (event.shiftKey && acts.chooseTo(spine)) event.preventDefault();
          if (!isPlainClick(event)) return;
          event.preventDefault();
          acts.open(spine);
        }}
        onDragStart={(event) => {
          event.dataTransfer.setData(DRAG, spine.id);
          event.dataTransfer.effectAllowed = 'move';
        }}
        title={spine.shortTitle ? spine.title : undefined}
        aria-label={spoken(props)}
        onFocus={() => acts.lookAt(spine)}
        onMouseMove={(event) => {
          // and not what is scrolled under a pointer at rest
          if (event.movementX || event.movementY) acts.lookAt(spine);
        }}
        onKeyDown={(event) => acts.onKey(event, spine)}
      >
        <Face {...props} />
      </a>
      <div className="ledge -mx-1.5" />
      {label && <BoardLabel label={label} onFold={onFold} />}
    </div>
  );
}, isSame);

const isPlainClick = (event: MouseEvent): boolean =>
  event.button === 0 && !event.metaKey && !event.ctrlKey && !event.shiftKey && !event.altKey;

/** Dropped on a spine, others stand before it. */
const dropsBefore = ({ spine, movable, acts }: Props) => ({
  onDragOver: (event: DragEvent) => {
    if (!movable || !event.dataTransfer.types.includes(DRAG)) return;
    event.preventDefault();
    event.stopPropagation();
  },
  onDrop: (event: DragEvent) => {
    const ids = event.dataTransfer.getData(DRAG);
    if (!ids) return;
    event.preventDefault();
    event.stopPropagation();
    acts.dropBefore(ids.split(','), spine);
  },
});

/** What tells it from others, where that is needed. */
const toldApart = ({ spine, twin }: Props): string => (twin || spine.kind === 'camera-profile' ? apart(spine) : '');

/** The spine for readers of screens. */
function spoken(props: Props): string {
  const { spine, mine, chosen } = props;
  const kind = (kindWords[spine.kind] ?? spine.kind).toLowerCase();
  const parts = [
    spine.title,
    kind,
    toldApart(props),
    `version ${spine.number}`,
    spine.status,
    spine.fresh && 'new to you',
    mine && 'with your ribbon',
    spine.house && 'with the house ribbon',
    chosen && 'chosen',
  ];
  return parts.filter(Boolean).join(', ');
}

function Face(props: Props) {
  const { spine, chosen, mine } = props;
  const told = toldApart(props);
  return (
    <>
      <Selvedge threads={spine.selvedge} className="h-[80px]" />
      {mine && <i className="ribbon" />}
      {spine.house && <i className="ribbon house" />}
      <Flags spine={spine} />
      {chosen && (
        <span className="absolute left-1.5 top-1.5 bg-verd px-1.5 text-[11px] font-semibold text-verd-ink">chosen</span>
      )}
      <span className="min-h-0 flex-1 px-2 pt-1.5">
        <span
          className={`font-serif text-[14.5px] font-medium leading-[1.14] [overflow-wrap:anywhere] ${told ? 'line-clamp-2' : 'line-clamp-3'}`}
        >
          {spine.shortTitle || spine.title}
        </span>
        {told && <span className="block truncate text-[11px] text-soft">{told}</span>}
      </span>
      <span className="flex justify-between gap-1 whitespace-nowrap px-2 pb-1.5 text-[11.5px] text-soft">
        <span>{`v${spine.number}${spine.variants ? `, ${spine.variants + 1} forms` : ''}`}</span>
        <span className="truncate">{short(spine)}</span>
      </span>
    </>
  );
}

/** New to whoever looks, stale, or not approved. */
function Flags({ spine }: { spine: Spine }) {
  const unsettled = spine.stale || spine.status !== 'approved';
  if (!spine.fresh && !unsettled) return null;
  const tone = spine.status === 'retired' ? 'text-soft' : 'text-ochre';
  return (
    <span className={`absolute left-0 top-[63px] bg-paper py-px pl-2 pr-1.5 text-[11px] font-semibold ${tone}`}>
      {spine.fresh && <span className="text-verd">new</span>}
      {spine.fresh && unsettled && ' '}
      {unsettled && (spine.stale ? 'stale' : spine.status)}
    </span>
  );
}

const plate =
  'absolute left-0 top-0 truncate border border-t-0 border-line-strong bg-paper px-1.5 text-left text-[11px] leading-[15px] text-soft';

export function BoardLabel({ label, onFold }: { label: Label; onFold: (() => void) | null }) {
  const fits = { maxWidth: label.reach * STEP - 12 };
  return (
    <div className="relative h-[17px]">
      {label.words && onFold && (
        <button
          type="button"
          data-headings
          aria-label={`${label.words}: fold`}
          className={`${plate} hover:text-ink`}
          style={fits}
          title={label.words}
          onClick={onFold}
        >
          {label.words}
        </button>
      )}
      {label.words && !onFold && (
        <span data-headings className={plate} style={fits} title={label.words}>
          {label.words}
        </span>
      )}
    </div>
  );
}
