/** The draft of the workshop kept in the browser, so that a page that is closed loses nothing. */
import type { Descriptor } from '@/core/editor/descriptor';
import type { Draft } from './draft';

interface Kept {
  descriptor: Descriptor | null;
  emptyOf: string;
  /** contents as text, a character a byte */ samples: { name: string; content: string }[];
  /** the editor's descriptor as it stood when the draft was begun */ base: Descriptor | null;
}

/** A browser keeps some megabytes in all; larger samples are asked for again. */
const MOST_KEPT = 2_000_000;

/** Whose draft of what: several people may use one browser. */
export const draftKey = (person: string, editor: string): string => `etagere-workshop ${person} ${editor || 'new'}`;
const textOf = (bytes: Uint8Array): string => Array.from(bytes, (byte) => String.fromCharCode(byte)).join('');
const bytesOf = (text: string): Uint8Array => Uint8Array.from(text, (sign) => sign.charCodeAt(0));

export function keepDraft(store: Storage, key: string, { descriptor, emptyOf, samples, base }: Draft): void {
  const size = samples.reduce((sum, { bytes }) => sum + bytes.length, 0);
  const kept: Kept = {
    descriptor,
    emptyOf,
    base,
    samples: size > MOST_KEPT ? [] : samples.map(({ name, bytes }) => ({ name, content: textOf(bytes) })),
  };
  try {
    store.setItem(key, JSON.stringify(kept));
  } catch {
    // a full or forbidden store keeps nothing; the draft is on the page all the same
  }
}

export const forgetDraft = (store: Storage, key: string): void => store.removeItem(key);

/** What is kept, as text; null where nothing is, or nothing can be. */
export function keptText(store: Storage, key: string): string | null {
  try {
    return store.getItem(key);
  } catch {
    return null;
  }
}

export function draftFrom(text: string | null): Draft | null {
  try {
    const kept = JSON.parse(text ?? 'null') as Kept | null;
    if (!kept) return null;
    return {
      descriptor: kept.descriptor,
      emptyOf: kept.emptyOf,
      base: kept.base,
      samples: kept.samples.map(({ name, content }) => ({ name, bytes: bytesOf(content) })),
    };
  } catch {
    return null;
  }
}
