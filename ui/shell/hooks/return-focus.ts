'use client';
/** Going back leads to the very link that one had left a page by, for those who go by keyboard or by ear. */
import { usePathname } from 'next/navigation';
import { useEffect, useRef } from 'react';

/** Pages that are remembered; the oldest is forgotten first. */
const MOST_PAGES = 40;
/** A page that is fetched anew has so long to bring the link back, on a slow machine too; whoever does something ends the wait. */
const PATIENCE_MS = 10_000;
/** Between two looks at a link that has the focus: it may be drawn anew. */
const LOOK_MS = 100;

/** So long one waits for that very link; then another that leads to the same page will do. */
const CHOOSY_MS = 3000;

/** The link by which a page was left, and how far it was scrolled. */
interface Left {
  href: string;
  /** its words: a page may hold several links to one place */ words: string;
  scrolled: number;
}

const leftBy = new Map<string, Left>();

/** The page as its address names it, but for where on it somebody looked, which is written later than the rest. */
function pageNow(): string {
  const search = new URLSearchParams(location.search);
  search.delete('at');
  return `${location.pathname}?${search}`;
}

const wordsOf = (link: Element): string => link.getAttribute('aria-label') ?? link.textContent ?? '';

function remember(link: Element, href: string): void {
  leftBy.delete(pageNow());
  leftBy.set(pageNow(), { href, words: wordsOf(link), scrolled: scrollY });
  const [oldest] = leftBy.keys();
  if (leftBy.size > MOST_PAGES && oldest !== undefined) leftBy.delete(oldest);
}

const pathOf = (href: string | null): string | undefined => href?.split('?')[0];

/**
 * The link that leads there. What an address asks for after its path may have changed meanwhile (the frame that goes with
 * the item that one looks at), so that one which leads to the same page will do; and what is beside it may lead there too.
 */
function linkTo({ href, words }: Left, isChoosy: boolean): HTMLElement | null {
  const path = pathOf(href) ?? href;
  const links = [...document.querySelectorAll<HTMLElement>(`main a[href^="${CSS.escape(path)}"]`)].filter(
    (link) => pathOf(link.getAttribute('href')) === path,
  );
  const same = links.find((link) => wordsOf(link) === words);
  return same ?? (isChoosy ? null : (links[0] ?? null));
}

/**
 * Focuses the link once it is there, and again where the page draws itself anew meanwhile and the link with it: a list that
 * learns its width, or what has happened since. Whoever does something else is left alone.
 */
function returnTo(left: Left, until: number, isWanted: () => boolean): void {
  if (performance.now() > until || !isWanted()) return;
  const link = linkTo(left, performance.now() < until - PATIENCE_MS + CHOOSY_MS);
  const active = document.activeElement;
  if (!active || active === document.body) link?.focus({ preventScroll: true });
  else if (active !== link) return;
  // a list that is drawn anew may have been too short for the place when the page came
  if (link && Math.abs(scrollY - left.scrolled) > 1) scrollTo(0, left.scrolled);
  const again = () => returnTo(left, until, isWanted);
  if (link && document.activeElement === link) setTimeout(again, LOOK_MS);
  else requestAnimationFrame(again);
}

/** A page that comes so soon after a click or Enter is one that somebody went on to. */
const WENT_ON_MS = 3000;

/**
 * The router draws a page that one goes back to before any event tells of it. So a change of the page that no click and no
 * Enter came before is taken for the way back.
 */
export function useReturnFocus(): void {
  const path = usePathname();
  const actedAt = useRef(-Infinity);
  /** how often a key or a button was pressed, or a page opened */ const acts = useRef(0);
  useEffect(() => {
    const onAct = () => {
      acts.current += 1;
    };
    const onClick = ({ target }: MouseEvent) => {
      actedAt.current = performance.now();
      const link = target instanceof Element ? target.closest('main a[href]') : null;
      const href = link?.getAttribute('href');
      if (link && href) remember(link, href);
    };
    const onKey = ({ key }: KeyboardEvent) => {
      if (key === 'Enter') actedAt.current = performance.now();
    };
    document.addEventListener('pointerdown', onAct, true);
    document.addEventListener('wheel', onAct, { capture: true, passive: true });
    document.addEventListener('keydown', onAct, true);
    document.addEventListener('click', onClick, true);
    document.addEventListener('keydown', onKey, true);
    return () => {
      onAct(); // nobody waits for a link any more
      document.removeEventListener('pointerdown', onAct, true);
      document.removeEventListener('wheel', onAct, true);
      document.removeEventListener('keydown', onAct, true);
      document.removeEventListener('click', onClick, true);
      document.removeEventListener('keydown', onKey, true);
    };
  }, []);
  useEffect(() => {
    const wentOn = performance.now() - actedAt.current < WENT_ON_MS;
    actedAt.current = -Infinity;
    const left = wentOn ? undefined : leftBy.get(pageNow());
    // what was waited for on the page before is not waited for any more
    acts.current += 1;
    const before = acts.current;
    if (left) returnTo(left, performance.now() + PATIENCE_MS, () => acts.current === before);
  }, [path]);
}
