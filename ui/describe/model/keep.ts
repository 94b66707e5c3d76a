/** A descriptor that is being written, kept in the browser, so that a page that is closed loses nothing. */
import type { Descriptor } from '@/core/editor/descriptor';
import { fromText } from './draft';

export function keep(store: Storage, key: string, draft: Descriptor): void {
  try {
    store.setItem(key, JSON.stringify(draft));
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

export function keptDraft(store: Storage, key: string): Descriptor | null {
  try {
    const read = fromText(store.getItem(key) ?? '');
    return 'draft' in read ? read.draft : null;
  } catch {
    return null;
  }
}
