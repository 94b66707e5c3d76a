'use client';
/**
 * For a page whose address is its state. The address is written past the router: that would draw the whole page anew for each
 * change, and a refresh that began before a change would put the older address back when it comes home. Links that lead to
 * the page itself are taken as changes of its state too.
 */
import { usePathname, useSearchParams } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';

const same = (a: string, b: string): boolean => new URLSearchParams(a).toString() === new URLSearchParams(b).toString();
/** The page that is on screen now, and how to tell it. */
let page: { path: string; setAddress: (next: string, push?: boolean) => void } | null = null;
const CHANGED = 'etagere-address-changed';

/** Tells the page at a path what its address is to hold; false where no such page is there. For what stands outside of it. */
export function offerAddress(path: string, next: string): boolean {
  if (page?.path !== path) return false;
  page.setAddress(next);
  return true;
}
/** Calls back when a page has changed its address. */
export function useAddressChange(then: (text: string) => void): void {
  const latest = useRef(then);
  useEffect(() => {
    latest.current = then;
  });
  useEffect(() => {
    const on = (e: Event): void => latest.current((e as CustomEvent<string>).detail);
    window.addEventListener(CHANGED, on);
    return () => window.removeEventListener(CHANGED, on);
  }, []);
}

/** A plain click on a link to this very page: what stands behind its question mark; null for any other click. */
function leadsHere(event: MouseEvent, path: string): string | null {
  const element = (event.target as Element | null)?.closest?.('a[href]');
  if (
    !(element instanceof HTMLAnchorElement) ||
    event.defaultPrevented ||
    event.button !== 0 ||
    event.metaKey ||
    event.ctrlKey ||
    event.shiftKey ||
    event.altKey ||
    element.target ||
    element.hasAttribute('download') ||
    element.hash
  )
    return null;
  const to = new URL(element.href);
  return to.origin === location.origin && to.pathname === path ? to.search.slice(1) : null;
}

interface Own {
  text: string;
  setAddress: (next: string, push?: boolean) => void;
  /** writes the address without drawing anew, for what the page holds anyhow */ keepAddress: (next: string) => void;
  last: () => string;
}
/** What the address holds behind its question mark; how to change it; and what was said last, also before it is drawn. */
export function useOwnAddress(): Own {
  const routed = useSearchParams().toString();
  const path = usePathname();
  const [text, setText] = useState(routed);
  const [seen, setSeen] = useState(routed);
  const now = useRef(routed);
  // links from elsewhere lead here through the router
  if (seen !== routed) {
    setSeen(routed);
    setText(routed);
  }
  useEffect(() => {
    now.current = routed;
  }, [routed]);
  const write = useCallback(
    (next: string, push: boolean) => {
      now.current = next;
      History.prototype[push ? 'pushState' : 'replaceState'].call(
        history,
        history.state,
        '',
        next ? `${path}?${next}` : path,
      );
    },
    [path],
  );
  const tell = useCallback((next: string) => {
    setText(next);
    window.dispatchEvent(new CustomEvent(CHANGED, { detail: next }));
  }, []);
  const setAddress = useCallback(
    (next: string, push = false) => {
      write(next, push);
      tell(next);
    },
    [write, tell],
  );
  useEffect(() => {
    page = { path, setAddress };
    return () => {
      if (page?.setAddress === setAddress) page = null;
    };
  }, [path, setAddress]);
  useEffect(() => {
    // before the router's own listeners
    const back = (): void => {
      if (location.pathname === path) {
        now.current = location.search.slice(1);
        tell(now.current);
      }
    };
    const click = (event: MouseEvent): void => {
      const next = leadsHere(event, path);
      if (next !== null) {
        event.preventDefault();
        setAddress(next, !same(next, now.current));
        window.scrollTo(0, 0);
      }
    };
    window.addEventListener('popstate', back, true);
    document.addEventListener('click', click, true);
    return () => {
      window.removeEventListener('popstate', back, true);
      document.removeEventListener('click', click, true);
    };
  }, [path, setAddress, tell]);
  useEffect(() => {
    // after a refresh the router writes the address that it knows
    if (location.pathname === path && !same(location.search, now.current))
      History.prototype.replaceState.call(history, history.state, '', now.current ? `${path}?${now.current}` : path);
  });
  return {
    text,
    setAddress,
    keepAddress: useCallback((next: string) => write(next, false), [write]),
    last: useCallback(() => now.current, []),
  };
}
