'use client';
/**
 * Says that a page is being fetched, where that takes long enough to wonder. The page that one looks at stays until the other
 * is there: a blank in between would be shown for a while even where the other comes at once.
 */
import { usePathname, useSearchParams } from 'next/navigation';
import { useEffect, useState } from 'react';

/** Sooner than this, nobody wonders. */
const PATIENCE_MS = 400;

/** The link of a click that leads to another page of ours. */
function linkOf({ target, button, ctrlKey, metaKey, shiftKey, altKey }: MouseEvent): HTMLAnchorElement | null {
  if (button !== 0 || ctrlKey || metaKey || shiftKey || altKey || !(target instanceof Element)) return null;
  const link = target.closest<HTMLAnchorElement>('a[href]');
  if (!link || link.target || link.hasAttribute('download') || link.origin !== location.origin) return null;
  return link.pathname.startsWith('/api/') ? null : link;
}

const isElsewhere = ({ pathname, search }: HTMLAnchorElement): boolean =>
  pathname !== location.pathname || search !== location.search;

export function Opening() {
  const address = `${usePathname()}?${useSearchParams().toString()}`;
  /** the address at which a link was followed; once it is another one, the page is there */
  const [from, setFrom] = useState<string | null>(null);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout>;
    const onClick = (event: MouseEvent) => {
      const link = linkOf(event);
      if (!link || !isElsewhere(link)) return;
      clearTimeout(timer);
      timer = setTimeout(() => setFrom(address), PATIENCE_MS);
    };
    document.addEventListener('click', onClick, true);
    return () => {
      clearTimeout(timer);
      document.removeEventListener('click', onClick, true);
      // whoever comes back to this address later follows no link there yet
      setFrom(null);
    };
  }, [address]);
  if (from !== address) return null;
  return (
    <p role="status" className="fixed left-1/2 top-[60px] z-40 -translate-x-1/2 bg-ink px-4 py-1.5 text-paper">
      Fetching
    </p>
  );
}
