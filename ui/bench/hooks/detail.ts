'use client';
/** A large cell at 1:1 and more: the parts in view, developed at full size as they are looked at, and painted where they lie. */
import { useEffect, useRef, useState, type RefObject } from 'react';
import { LRUCache } from 'lru-cache';
import type { CellSpec } from '@/core/bench/cell';
import type { Rect } from '@/core/frame/orient';
import { contextOf, paint } from '../../kit/canvas';
import { LARGE_WIDTH } from '../model/cell';
import { PART, partsInView } from '../model/parts';
import type { Placed, Size } from '../model/view';
import type { CellFault, Pool } from './pool';

const MOST_PARTS = 60;
const nameOf = (part: { x: number; y: number }): string => `${part.x},${part.y}`;

interface Asked {
  pool: Pool | null;
  slot: number;
  spec: CellSpec;
  /** the frame's full size; null while it is not known, or while the whole is seen */ whole: Size | null;
  room: Size;
  placed: Placed;
  ratio: number;
  onFault: (fault: CellFault) => void;
}

/** Paints what is there, and says which parts are still to come. */
function paintParts(
  canvas: HTMLCanvasElement,
  parts: readonly Rect[],
  tiles: LRUCache<string, HTMLCanvasElement>,
  { room, placed, ratio }: Pick<Asked, 'room' | 'placed' | 'ratio'>,
): Rect[] {
  const width = Math.round(room.width * ratio);
  const height = Math.round(room.height * ratio);
  const context = contextOf(canvas);
  if (canvas.width !== width || canvas.height !== height) {
    canvas.width = width;
    canvas.height = height;
  } else context.clearRect(0, 0, width, height);
  context.imageSmoothingEnabled = false;
  const missing: Rect[] = [];
  for (const part of parts) {
    const tile = tiles.get(nameOf(part));
    if (!tile) {
      missing.push(part);
      continue;
    }
    context.drawImage(
      tile,
      Math.round((placed.x + part.x * placed.scale) * ratio),
      Math.round((placed.y + part.y * placed.scale) * ratio),
      Math.round(part.w * placed.scale * ratio),
      Math.round(part.h * placed.scale * ratio),
    );
  }
  canvas.dataset.drawn = String(parts.length - missing.length);
  canvas.dataset.missing = String(missing.length);
  return missing;
}

/** The parts that are there, by their corner; `readAt` reads a color of them, in pixels of the full size. */
export function useDetail(canvas: RefObject<HTMLCanvasElement | null>, asked: Asked) {
  const { pool, slot, spec, whole, room, placed, ratio, onFault } = asked;
  const [tiles] = useState(() => new LRUCache<string, HTMLCanvasElement>({ max: MOST_PARTS }));
  const [come, setCome] = useState(0);
  const waiting = useRef(new Set<string>());
  const series = useRef(0);
  const prefix = `part ${slot} `;
  const text = JSON.stringify(spec);

  // another cell: nothing of the one before is wanted any more
  useEffect(() => {
    series.current++;
    tiles.clear();
    waiting.current.clear();
    pool?.drop((key) => key.startsWith(prefix));
  }, [pool, text, prefix, tiles]);

  const { x, y, scale } = placed;
  useEffect(() => {
    if (!canvas.current || !pool || !whole) return;
    const parts = partsInView(whole, room, x, y, scale);
    const wanted = new Set(parts.map(nameOf));
    const number = series.current;
    pool.drop((key) => key.startsWith(prefix) && !wanted.has(key.slice(prefix.length)));
    for (const name of waiting.current) if (!wanted.has(name)) waiting.current.delete(name);
    for (const part of paintParts(canvas.current, parts, tiles, { room, placed, ratio })) {
      const name = nameOf(part);
      if (waiting.current.has(name)) continue;
      waiting.current.add(name);
      void pool
        .ask(prefix + name, true, (id) => ({ id, part: { ...spec, width: LARGE_WIDTH }, at: part, whole }))
        .then((answer) => {
          if (number !== series.current) return;
          waiting.current.delete(name);
          if ('error' in answer) onFault(answer.error);
          if (!('at' in answer)) return;
          const tile = document.createElement('canvas');
          contextOf(tile, { willReadFrequently: true });
          paint(tile, part.w, part.h, answer.pixels);
          tiles.set(name, tile);
          setCome((count) => count + 1);
        });
    }
  }, [pool, whole, room, x, y, scale, ratio, text, come]); // eslint-disable-line react-hooks/exhaustive-deps -- the text tells what is asked for

  return { tiles };
}

/** The color at a pixel of the full size, where its part is there. */
export function readTile(
  tiles: LRUCache<string, HTMLCanvasElement>,
  px: number,
  py: number,
): [number, number, number] | null {
  const tile = tiles.peek(nameOf({ x: px - (px % PART), y: py - (py % PART) }));
  if (!tile) return null;
  const [r = 0, g = 0, b = 0] = contextOf(tile, { willReadFrequently: true }).getImageData(
    px % PART,
    py % PART,
    1,
    1,
  ).data;
  return [r, g, b];
}
