'use client';
import type { DragEvent } from 'react';
import { draggedBy } from '../model/selection';
import { useShelves } from '../shelves-context';
import { DRAG } from '../SpineCard';

/** A place on which spines are dropped to stand at the end of a shelf; null where the shelf takes none. */
export function useDropOn(shelf: string | null) {
  const { move, selection, may } = useShelves();
  if (!shelf) return {};
  return {
    onDragOver: (event: DragEvent) => {
      if (may.edit && event.dataTransfer.types.includes(DRAG)) event.preventDefault();
    },
    onDrop: (event: DragEvent) => {
      const ids = event.dataTransfer.getData(DRAG);
      if (!ids) return;
      event.preventDefault();
      void move(draggedBy(ids.split(','), selection), shelf, null);
    },
  };
}
