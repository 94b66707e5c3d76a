'use client';
/** One to four cells large, side by side or under a wipe, with linked zoom and pan, histogram and readout. Holding shows the frame without a look. */
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import type { CellSpec } from '@/core/bench/cell';
import { EnlargedBar } from './EnlargedBar';
import type { Pool } from './hooks/pool';
import { Large } from './Large';
import { withoutLooks } from './model/cell';
import type { ReadColor } from './model/readout';
import type { Surround } from './model/state';
import { panned, wholeView, zoomed, type View } from './model/view';
import { surrounds } from './surrounds';

export interface ShownCell {
  spec: CellSpec;
  name: string;
}
interface Props {
  pool: Pool | null;
  title: string;
  shown: ShownCell[];
  /** what may be put beside: column and name */ others: { column: number; name: string }[];
  onAdd: (column: number) => void;
  onDrop: (place: number) => void;
  surround: Surround;
  onSurround: (gray: Surround) => void;
  onClose: () => void;
}
export interface Wipe {
  on: boolean;
  /** percent from the left */ edge: number;
}

export function Enlarged(props: Props) {
  const { pool, title, shown, surround, onClose } = props;
  const [view, setView] = useState<View>(wholeView);
  const [wipe, setWipe] = useState<Wipe>({ on: false, edge: 50 });
  const [original, setOriginal] = useState(false);
  const [readout, setReadout] = useState<{ name: string; rgb: number[] }[] | null>(null);
  const frame = useRef<HTMLDivElement>(null);
  const readers = useRef(new Map<number, ReadColor>());
  useEffect(() => {
    frame.current?.focus();
  }, []);
  const wiping = wipe.on && shown.length === 2;
  const readAt = (x: number, y: number) =>
    setReadout(shown.map(({ name }, i) => ({ name, rgb: readers.current.get(i)?.(x, y) ?? [] })));
  const onKeyDown = keysFor({
    close: onClose,
    hold: () => setOriginal(true),
    zoom: (zoom) => setView(zoomed(view, zoom)),
    wipe: () => {
      if (shown.length === 2) setWipe({ ...wipe, on: !wipe.on });
    },
    pan: view.zoom ? (x, y) => setView(panned(view, x, y)) : null,
  });
  return (
    <div
      ref={frame}
      role="dialog"
      aria-modal="true"
      aria-label={title}
      tabIndex={-1}
      className="fixed inset-0 z-40 flex flex-col outline-none"
      style={{ background: surrounds[surround].gray }}
      onKeyDown={onKeyDown}
      onKeyUp={(event) => {
        if (event.key === ' ') setOriginal(false);
      }}
    >
      <EnlargedBar
        {...props}
        view={view}
        onView={setView}
        wipe={wipe}
        onWipe={setWipe}
        original={original}
        onOriginal={setOriginal}
        readout={readout}
      />
      <div
        className={`grid min-h-0 flex-1 gap-2 p-3 ${shown.length > 2 ? 'grid-cols-2 grid-rows-2' : ''}`}
        style={shown.length === 2 && !wiping ? { gridTemplateColumns: '1fr 1fr' } : undefined}
      >
        {shown.map(({ name, spec }, i) => (
          <div key={i} className="relative min-h-0 min-w-0" style={wiping ? wipedStyle(i, wipe.edge) : undefined}>
            <Large
              pool={pool}
              slot={i}
              spec={original ? withoutLooks(spec) : spec}
              name={name}
              view={view}
              onView={setView}
              onAt={readAt}
              onReader={(read) => readers.current.set(i, read)}
              onDark={surround === 2}
              left={!wiping || i === 0}
            />
          </div>
        ))}
      </div>
    </div>
  );
}

/** The second picture lies over the first, and is cut at the edge. */
const wipedStyle = (place: number, edge: number): React.CSSProperties => ({
  gridArea: '1 / 1',
  ...(place === 1 ? { clipPath: `inset(0 0 0 ${edge}%)`, pointerEvents: 'none' } : {}),
});

interface Keys {
  close: () => void;
  hold: () => void;
  zoom: (zoom: number) => void;
  wipe: () => void;
  /** null while the whole is seen */ pan: ((x: number, y: number) => void) | null;
}
const arrows: Record<string, [number, number]> = {
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
  ArrowDown: [0, 1],
  ArrowUp: [0, -1],
};

const keysFor = (keys: Keys) => (event: KeyboardEvent) => {
  const on = (event.target as HTMLElement).tagName;
  const arrow = arrows[event.key];
  const take = (act: () => void) => {
    event.preventDefault();
    act();
  };
  if (event.key === 'Escape') take(keys.close);
  else if (event.key === ' ' && on !== 'BUTTON') take(keys.hold);
  else if (event.key === '1' || event.key === '0') keys.zoom(Number(event.key));
  else if (event.key === 'w') keys.wipe();
  else if (arrow && keys.pan && on !== 'INPUT') {
    event.preventDefault();
    keys.pan(...arrow);
  }
};
