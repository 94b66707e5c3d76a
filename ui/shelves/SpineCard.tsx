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
}
interface Props {
  spine: Spine;
  frame: string | null;
  current: boolean;
  chosen: boolean;
  mine: boolean;
  /** another spine bears the same title */ twin: boolean;
  movable: boolean;
  acts: SpineActs;
  /** where the board's edge bears headings: those that begin here */ label: Label | null;
}

/** The kind of data that a dragged spine carries. */
export const DRAG = 'application/x-etagere-items';
/** From one spine to the next, in pixels. */
const STEP = 128;

const sameLabel = (a: Label | null, b: Label | null): boolean => a?.words === b?.words && a?.reach === b?.reach;

/** All but the label are told by themselves; labels are made anew for each painting. */
function isSame(before: Props, after: Props): boolean {
  const keys = Object.keys(after) as (keyof Props)[];
  return sameLabel(before.label, after.label) && keys.every((key) => key === 'label' || before[key] === after[key]);
}

export const SpineCard = memo(function SpineCard(props: Props) {
  const { spine, frame, current, movable, acts, label } = props;
  return (
    <div className="pt-1" {...dropsBefore(props)}>
      <a
        href={`/items/${spine.id}${frame ? `?frame=${frame}` : ''}`}
        data-spine={spine.id}
        className="spine"
        data-chosen={current}
        draggable={movable}
        onClick={(event) => {
          if (!isPlainClick(event)) return;
          event.preventDefault();
          acts.open(spine);
        }}
        onDragStart={(event) => {
          event.dataTransfer.setData(DRAG, spine.id);
          event.dataTransfer.effectAllowed = 'move';
        }}
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
      {label && <BoardLabel label={label} />}
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
          {spine.title}
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

const BoardLabel = ({ label }: { label: Label }) => (
  <div className="relative h-[17px]">
    {label.words && (
      <span
        data-headings
        className="absolute left-0 top-0 truncate border border-t-0 border-line-strong bg-paper px-1.5 text-[11px] leading-[15px] text-soft"
        style={{ maxWidth: label.reach * STEP - 12 }}
        title={label.words}
      >
        {label.words}
      </span>
    )}
  </div>
);
