'use client';
/** One cell, large: as a whole, or at 1:1 and 2:1 in parts that are developed as they come into view. */
import { useCallback, useEffect, useRef, type PointerEvent } from 'react';
import { isDeveloped, type CellSpec } from '@/core/bench/cell';
import { useRoom } from '../kit/room';
import { readTile, useDetail } from './hooks/detail';
import { useFullSize } from './hooks/full-size';
import type { Pool } from './hooks/pool';
import { useWholePicture } from './hooks/whole-picture';
import type { ReadColor } from './model/readout';
import { placeIn, type View } from './model/view';

interface Props {
  pool: Pool | null;
  /** tells this one from those beside it */ slot: number;
  spec: CellSpec;
  name: string;
  view: View;
  onView: (view: View) => void;
  onAt: (x: number, y: number) => void;
  onReader: (read: ReadColor) => void;
  /** it stands on the dark surround */ onDark: boolean;
  left: boolean;
}

const inside = (value: number): number => Math.min(1, Math.max(0, value));

/** The pixel at a place of 0…1. */
const pixelAt = (place: number, size: number): number => Math.min(size - 1, Math.max(0, Math.floor(place * size)));

/** Whether the frame is kept at full size in the form in which the cell shows it. */
const hasFullSize = (spec: CellSpec): boolean => isDeveloped(spec) || (!spec.camera && spec.source.from !== 'export');

export function Large({ pool, slot, spec, name, view, onView, onAt, onReader, onDark, left }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const sharp = useRef<HTMLCanvasElement>(null);
  const bars = useRef<HTMLCanvasElement>(null);
  const box = useRef<HTMLDivElement>(null);
  const inParts = hasFullSize(spec);
  const room = useRoom(box);
  const whole = useFullSize(spec.frame, inParts);
  const picture = useWholePicture(pool, slot, spec, canvas, bars);
  const { size, fault, preview } = picture;
  // 1:1 is a pixel of the picture on a pixel of the screen, also where the page's own pixels are larger
  const ratio = typeof window === 'undefined' ? 1 : window.devicePixelRatio || 1;
  const placed = placeIn(room, whole ?? size, view, ratio);
  const detailed = whole && view.zoom > 0 && !fault ? whole : null;
  const { tiles } = useDetail(sharp, {
    pool,
    slot,
    spec,
    whole: detailed,
    room,
    placed,
    ratio,
    onFault: picture.setFault,
  });

  const read = useCallback<ReadColor>(
    (u, v) => {
      const fine = detailed && readTile(tiles, pixelAt(u, detailed.width), pixelAt(v, detailed.height));
      const seen = preview.current;
      if (fine || !seen) return fine;
      const at = (pixelAt(v, seen.height) * seen.width + pixelAt(u, seen.width)) * 4;
      const [r = 0, g = 0, b = 0] = seen.data.subarray(at, at + 3);
      return [r, g, b];
    },
    [detailed, tiles, preview],
  );
  const tellReader = useRef(onReader);
  useEffect(() => {
    tellReader.current = onReader;
  });
  useEffect(() => {
    tellReader.current(read);
  }, [read]);

  const drag = useDrag(view, placed, onView);
  const onPointerMove = (event: PointerEvent<HTMLElement>) => {
    const place = event.currentTarget.getBoundingClientRect();
    onAt(
      (event.clientX - place.left - placed.x) / placed.width,
      (event.clientY - place.top - placed.y) / placed.height,
    );
    drag.move(event);
  };
  const side = left ? 'left-1' : 'right-1';
  return (
    <div
      ref={box}
      data-large
      className="absolute inset-0 overflow-hidden"
      style={{ cursor: view.zoom ? 'grab' : 'default', touchAction: 'none' }}
      onPointerDown={drag.begin}
      onPointerUp={drag.end}
      onPointerMove={onPointerMove}
    >
      <canvas
        ref={canvas}
        role="img"
        aria-label={name}
        className="absolute left-0 top-0 origin-top-left"
        style={{
          transform: `translate(${placed.x}px, ${placed.y}px) scale(${placed.width / size.width}, ${placed.height / size.height})`,
        }}
      />
      {detailed && pool && (
        <canvas ref={sharp} aria-hidden data-sharp className="absolute left-0 top-0 h-full w-full" />
      )}
      {fault && (
        <p role="alert" className="absolute inset-0 grid place-items-center px-6 text-center">
          {fault.message} {fault.remedy}
        </p>
      )}
      <p className={`absolute top-1 bg-paper px-2 py-0.5 text-[12px] text-ink ${side}`}>
        {name}
        {view.zoom > 0 && !inParts ? ', enlarged from its picture' : ''}
      </p>
      <canvas
        ref={bars}
        aria-hidden
        width={128}
        height={48}
        className={`absolute bottom-1 ${side} border ${onDark ? 'border-[#555]' : 'border-line-strong'} bg-[#2b2b2b]`}
      />
    </div>
  );
}

/** Drags what is in the middle of the view along with the pointer. */
function useDrag(view: View, placed: { width: number; height: number }, onView: (view: View) => void) {
  const from = useRef<{ x: number; y: number; view: View } | null>(null);
  return {
    begin: (event: PointerEvent<HTMLElement>) => {
      from.current = { x: event.clientX, y: event.clientY, view };
      event.currentTarget.setPointerCapture(event.pointerId);
    },
    move: (event: PointerEvent<HTMLElement>) => {
      if (!from.current || !view.zoom) return;
      onView({
        ...view,
        x: inside(from.current.view.x - (event.clientX - from.current.x) / placed.width),
        y: inside(from.current.view.y - (event.clientY - from.current.y) / placed.height),
      });
    },
    end: () => {
      from.current = null;
    },
  };
}
