'use client';
/** What can be done with enlarged cells: zoom, what stands beside, the wipe, the original, the surround; and what the pointer reads. */
import { X } from 'lucide-react';
import type { ShownCell, Wipe } from './Enlarged';
import { readoutWords } from './model/readout';
import { MOST_LARGE, type Surround } from './model/state';
import { zoomed, type View } from './model/view';
import { surrounds } from './surrounds';

interface Props {
  title: string;
  shown: ShownCell[];
  others: { column: number; name: string }[];
  onAdd: (column: number) => void;
  onDrop: (place: number) => void;
  surround: Surround;
  onSurround: (gray: Surround) => void;
  onClose: () => void;
  view: View;
  onView: (view: View) => void;
  wipe: Wipe;
  onWipe: (wipe: Wipe) => void;
  original: boolean;
  onOriginal: (on: boolean) => void;
  readout: { name: string; rgb: number[] }[] | null;
}

export function EnlargedBar(props: Props) {
  const { title, view, readout, onClose } = props;
  const zoomWords = view.zoom === 0 ? 'whole' : `${view.zoom}:1`;
  return (
    <div className="flex flex-wrap items-center gap-2 border-b border-line bg-sheet px-4 py-2">
      <h2 className="mr-2 text-[17px]">{title}</h2>
      <Zoom view={view} onView={props.onView} />
      <Beside {...props} />
      <WipeControl {...props} />
      <HoldOriginal original={props.original} onOriginal={props.onOriginal} />
      <SurroundControl surround={props.surround} onSurround={props.onSurround} />
      <p className="min-w-0 flex-1 truncate text-right text-[12px] text-soft" aria-live="off">
        {readout ? readoutWords(readout) : `${zoomWords}. The pointer reads values.`}
      </p>
      <button className="button" onClick={onClose}>
        <X aria-hidden size={14} />
        Close
      </button>
    </div>
  );
}

const zooms = [
  { zoom: 0, word: 'whole', edge: '!rounded-r-none' },
  { zoom: 1, word: '1:1', edge: '!rounded-none !border-x-0' },
  { zoom: 2, word: '2:1', edge: '!rounded-l-none' },
];

function Zoom({ view, onView }: Pick<Props, 'view' | 'onView'>) {
  return (
    <span className="inline-flex" role="group" aria-label="Zoom">
      {zooms.map(({ zoom, word, edge }) => (
        <button
          key={zoom}
          className={`chip ${edge}`}
          aria-pressed={view.zoom === zoom}
          onClick={() => onView(zoomed(view, zoom))}
        >
          {word}
        </button>
      ))}
    </span>
  );
}

function Beside({ shown, others, wipe, onWipe, onAdd, onDrop }: Props) {
  return (
    <>
      {shown.length < MOST_LARGE && others.length > 0 && (
        <select
          aria-label="Put beside"
          className="field !h-[26px] max-w-[170px] text-[12.5px]"
          value=""
          onChange={(event) => {
            if (!event.target.value) return;
            onWipe({ ...wipe, on: false });
            onAdd(Number(event.target.value));
          }}
        >
          <option value="">put beside …</option>
          {others.map((other) => (
            <option key={other.column} value={other.column}>
              {other.name}
            </option>
          ))}
        </select>
      )}
      {shown.length > 2 && (
        <button className="chip" onClick={() => onDrop(shown.length - 1)}>
          One less
        </button>
      )}
    </>
  );
}

function WipeControl({ shown, wipe, onWipe }: Pick<Props, 'shown' | 'wipe' | 'onWipe'>) {
  if (shown.length !== 2) return null;
  return (
    <>
      <button className="chip" aria-pressed={wipe.on} onClick={() => onWipe({ ...wipe, on: !wipe.on })}>
        Wipe
      </button>
      {wipe.on && (
        <label className="flex items-center gap-2 text-[12px] text-soft">
          edge
          <input
            type="range"
            min={0}
            max={100}
            value={wipe.edge}
            onChange={(event) => onWipe({ ...wipe, edge: Number(event.target.value) })}
            aria-label="Edge of the wipe"
            className="accent-[var(--verd)]"
          />
        </label>
      )}
    </>
  );
}

function HoldOriginal({ original, onOriginal }: Pick<Props, 'original' | 'onOriginal'>) {
  const release = () => onOriginal(false);
  return (
    <button
      className="chip"
      aria-pressed={original}
      onPointerDown={() => onOriginal(true)}
      onPointerUp={release}
      onPointerLeave={release}
      onKeyDown={(event) => {
        if (event.key === ' ' || event.key === 'Enter') onOriginal(true);
      }}
      onKeyUp={release}
    >
      Hold to see the original
    </button>
  );
}

function SurroundControl({ surround, onSurround }: Pick<Props, 'surround' | 'onSurround'>) {
  return (
    <span className="inline-flex items-center gap-1 text-[12px] text-soft" role="group" aria-label="Surround">
      {surrounds.map(({ gray, word }, i) => (
        <button
          key={gray}
          aria-label={`${word} surround`}
          aria-pressed={surround === i}
          className={`h-[22px] w-[22px] border ${surround === i ? 'outline outline-2 outline-verd' : 'border-line-strong'}`}
          style={{ background: gray }}
          onClick={() => onSurround(i as Surround)}
        />
      ))}
    </span>
  );
}
