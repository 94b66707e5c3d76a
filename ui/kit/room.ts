'use client';
import { useEffect, useState, type RefObject } from 'react';

/** The size of an element, in pixels of the page, as it changes. */
export function useRoom(box: RefObject<Element | null>): { width: number; height: number } {
  const [room, setRoom] = useState({ width: 1, height: 1 });
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => {
      if (entry) setRoom({ width: entry.contentRect.width, height: entry.contentRect.height });
    });
    if (box.current) watch.observe(box.current);
    return () => watch.disconnect();
  }, [box]);
  return room;
}
