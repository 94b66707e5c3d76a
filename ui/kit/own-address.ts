'use client';
/**
 * For a page whose address is its state. The address is written past the router: that would fetch the page anew for each
 * change, and a refresh that began before a change would put the older address back when it comes home.
 */
import { usePathname, useSearchParams } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';

const same = (a: string, b: string): boolean => new URLSearchParams(a).toString() === new URLSearchParams(b).toString();

/** What the address holds behind its question mark; how to say something else; and what was said last, also before it is drawn. */
export function useOwnAddress(): { text: string; say: (next: string, push?: boolean) => void; last: () => string } {
  const routed = useSearchParams().toString(), path = usePathname(), [text, setText] = useState(routed), [seen, setSeen] = useState(routed), now = useRef(routed);
  // links lead here through the router
  if (seen !== routed) { setSeen(routed); setText(routed); }
  useEffect(() => { now.current = routed; }, [routed]);
  useEffect(() => { // back and forward; before the router's own listener, which draws at once
    const on = (): void => { now.current = location.search.slice(1); setText(now.current); };
    window.addEventListener('popstate', on, true);
    return () => window.removeEventListener('popstate', on, true);
  }, []);
  useEffect(() => { // after a refresh the router writes the address that it knows
    if (location.pathname === path && !same(location.search, now.current)) History.prototype.replaceState.call(history, history.state, '', now.current ? `${path}?${now.current}` : path);
  });
  const say = useCallback((next: string, push = false) => {
    now.current = next;
    History.prototype[push ? 'pushState' : 'replaceState'].call(history, history.state, '', next ? `${path}?${next}` : path);
    setText(next);
  }, [path]);
  return { text, say, last: useCallback(() => now.current, []) };
}
