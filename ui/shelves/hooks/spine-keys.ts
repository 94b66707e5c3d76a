'use client';
/**
 * Spines by keyboard: arrows walk, R sets the ribbon, X or the space bar chooses, with Shift all up to here, Ctrl and A all
 * that was found; Alt and arrows move along the shelf.
 */
import type { KeyboardEvent } from 'react';
import { nearestInRow } from '../model/nearest';
import type { Spine } from '../model/spine';

interface Actions {
  spines: readonly Spine[];
  /** two that differ by less in height stand in one row, in pixels */ rowGap: number;
  /** null where nothing is moved by hand */ move:
    ((ids: readonly string[], shelf: string, before: string | null) => Promise<boolean>) | null;
  setRibbon: (spine: Spine) => void;
  /** null where nothing is chosen */ toggle: ((spine: Spine) => void) | null;
  chooseTo: ((spine: Spine) => void) | null;
  chooseAll: (() => void) | null;
}

const allSpines = (): HTMLElement[] => [...document.querySelectorAll<HTMLElement>('[data-spine]')];

const focusSpine = (id: string): void =>
  void requestAnimationFrame(() => document.querySelector<HTMLElement>(`[data-spine="${id}"]`)?.focus());

/** Before which spine one stands after a step along its shelf: null for the end, undefined where there is no step. */
export function stepAlong(spines: readonly Spine[], spine: Spine, by: -1 | 1): string | null | undefined {
  const own = spines.filter((one) => one.shelfId === spine.shelfId);
  const place = own.findIndex((one) => one.id === spine.id);
  if (place < 0 || place + by < 0 || place + by >= own.length) return undefined;
  return own[by < 0 ? place - 1 : place + 2]?.id ?? null;
}

/** Where a key leads among the spines of the page. */
function targetOf(key: string, spine: Spine, rowGap: number): HTMLElement | undefined {
  const all = allSpines();
  const place = all.findIndex((element) => element.dataset.spine === spine.id);
  switch (key) {
    case 'ArrowRight':
      return all[place + 1];
    case 'ArrowLeft':
      return all[place - 1];
    case 'Home':
      return all[0];
    case 'End':
      return all[all.length - 1];
    case 'ArrowDown':
    case 'ArrowUp': {
      const here = all[place]?.getBoundingClientRect();
      const lying = all.map((element) => ({ at: element, box: element.getBoundingClientRect() }));
      return here && nearestInRow(here, lying, key === 'ArrowDown' ? 'down' : 'up', rowGap);
    }
    default:
      return undefined;
  }
}

export const spineKeys =
  ({ spines, rowGap, move, setRibbon, toggle, chooseTo, chooseAll }: Actions) =>
  (event: KeyboardEvent<HTMLElement>, spine: Spine): void => {
    if ((event.target as HTMLElement).tagName === 'INPUT') return;
    if (event.altKey && (event.key === 'ArrowLeft' || event.key === 'ArrowRight')) {
      event.preventDefault();
      const before = stepAlong(spines, spine, event.key === 'ArrowLeft' ? -1 : 1);
      if (move && before !== undefined) void move([spine.id], spine.shelfId, before).then(() => focusSpine(spine.id));
      return;
    }
    if (event.key.toLowerCase() === 'a' && (event.ctrlKey || event.metaKey)) {
      if (!chooseAll) return;
      event.preventDefault();
      chooseAll();
      return;
    }
    if (event.key === ' ' && toggle && chooseTo) {
      event.preventDefault();
      (event.shiftKey ? chooseTo : toggle)(spine);
      return;
    }
    const target = targetOf(event.key, spine, rowGap);
    const act = keyActions[event.key];
    if (target) {
      event.preventDefault();
      target.focus();
    } else if (act && !event.ctrlKey && !event.metaKey) {
      event.preventDefault();
      act({ setRibbon, toggle }, spine);
    }
  };

const keyActions: Record<string, (actions: Pick<Actions, 'setRibbon' | 'toggle'>, spine: Spine) => void> = {
  r: ({ setRibbon }, spine) => setRibbon(spine),
  x: ({ toggle }, spine) => toggle?.(spine),
};
