'use client';
/** Whether the server answers: told by every call that reaches it or does not, and asked for while it does not. */
import { useSyncExternalStore } from 'react';

const ASK_EVERY_MS = 3000;
/** Small, static, and open to everybody. */
const ASKED_FOR = '/icon.svg';

let gone = false;
let timer: ReturnType<typeof setTimeout> | null = null;
const listeners = new Set<() => void>();

function set(now: boolean): void {
  if (gone === now) return;
  gone = now;
  if (gone) askLater();
  listeners.forEach((listener) => listener());
}

function askLater(): void {
  if (timer) clearTimeout(timer);
  timer = setTimeout(() => void ask(), ASK_EVERY_MS);
}

/** Asks now. Resolves to whether there was an answer. */
export async function ask(): Promise<boolean> {
  if (timer) clearTimeout(timer);
  timer = null;
  const answer = await fetch(`${ASKED_FOR}?${Date.now()}`, { cache: 'no-store' }).catch(() => null);
  if (answer?.ok) {
    set(false);
    return true;
  }
  set(true);
  askLater();
  return false;
}

/** A call reached the server. */
export const noteAnswered = (): void => set(false);

/** A call did not: whether that was the call's own fault is asked before anything is said. */
export const noteUnanswered = (): void => void ask();

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  const lost = () => set(true);
  const found = () => void ask();
  window.addEventListener('offline', lost);
  window.addEventListener('online', found);
  return () => {
    listeners.delete(listener);
    window.removeEventListener('offline', lost);
    window.removeEventListener('online', found);
  };
}

/** Whether the server does not answer at present. */
export const useGone = (): boolean =>
  useSyncExternalStore(
    subscribe,
    () => gone,
    () => false,
  );
