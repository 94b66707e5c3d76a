/** A descriptor that is being written, kept in the browser, so that a page that is closed loses nothing. */
import type { Descriptor } from '@/core/editor/descriptor';
import { fromText } from './draft';

export interface Kept {
  draft: Descriptor;
  /** what was known of the editor when it was begun, as JSON */ base: string;
}

export function keep(store: Storage, key: string, kept: Kept): void {
  try {
    store.setItem(key, JSON.stringify(kept));
  } catch {
    // a full or forbidden store keeps nothing; the draft is on the page all the same
  }
}

export function forget(store: Storage, key: string): void {
  try {
    store.removeItem(key);
  } catch {
    // nothing was kept there either
  }
}

export function keptIn(store: Storage, key: string): Kept | null {
  try {
    const { draft, base } = JSON.parse(store.getItem(key) ?? '') as { draft: unknown; base: unknown };
    const read = fromText(JSON.stringify(draft));
    return 'draft' in read && typeof base === 'string' ? { draft: read.draft, base } : null;
  } catch {
    return null;
  }
}
