'use client';
/** A place in a cell that is moved by the arrows while a neutral is picked: Enter picks it, Escape cancels. */
import { useState, type KeyboardEvent } from 'react';

/** 0…1 of the cell's width and height. */
export interface Place {
  x: number;
  y: number;
}

const MIDDLE: Place = { x: 0.5, y: 0.5 };
const STEP = 0.02;
const LARGE_STEP = 0.1;

const directions: Record<string, Place> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
};

/** A place after an arrow; held within the cell. With Shift, in larger steps. */
export function moved(place: Place, key: string, large: boolean): Place | null {
  const direction = directions[key];
  if (!direction) return null;
  const step = large ? LARGE_STEP : STEP;
  const held = (value: number): number => Math.min(1, Math.max(0, value));
  return { x: held(place.x + direction.x * step), y: held(place.y + direction.y * step) };
}

export function useCrosshair(picking: boolean, onPick: (x: number, y: number) => void, onCancel: () => void) {
  const [place, setPlace] = useState(MIDDLE);
  const onKeyDown = (event: KeyboardEvent) => {
    if (!picking) return;
    const next = moved(place, event.key, event.shiftKey);
    if (next) setPlace(next);
    else if (event.key === 'Enter' || event.key === ' ') onPick(place.x, place.y);
    else if (event.key === 'Escape') onCancel();
    else return;
    // the keys of the matrix are not meant
    event.preventDefault();
    event.stopPropagation();
  };
  return { place, onKeyDown };
}
