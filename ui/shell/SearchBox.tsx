'use client';
import { must } from '@/core/must';
import { Search } from 'lucide-react';
import { usePathname, useRouter, useSearchParams } from 'next/navigation';
import { Suspense, useEffect, useRef } from 'react';
import { offerAddress, useAddressChange } from '../kit/own-address';

/** Search as you type over the shelves; "/" brings the cursor here from anywhere. */
export function SearchBox() {
  return (
    <Suspense>
      <Box />
    </Suspense>
  );
}

function Box() {
  const router = useRouter();
  const path = usePathname();
  const params = useSearchParams();
  const input = useRef<HTMLInputElement>(null);
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const onShelves = path === '/shelves';
  const current = onShelves ? (params.get('q') ?? '') : '';
  useEffect(() => {
    document.documentElement.dataset.awake = 'yes'; // the page answers to keys and clicks from here on
    const onKey = (event: KeyboardEvent) => {
      const typing =
        event.target instanceof HTMLElement &&
        (event.target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(event.target.tagName));
      if (event.key === '/' && !typing && !event.ctrlKey && !event.metaKey) {
        event.preventDefault();
        input.current?.focus();
        input.current?.select();
      }
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, []);
  const go = (query: string) => {
    const next = new URLSearchParams(onShelves ? location.search : undefined);
    if (query) next.set('q', query);
    else next.delete('q');
    next.delete('at');
    if (!offerAddress('/shelves', next.toString())) router.push(`/shelves${next.size ? `?${next}` : ''}`);
  };
  // "show all" and the like take the words away; what is being typed is left alone
  useAddressChange((text) => {
    const box = input.current;
    if (onShelves && box && document.activeElement !== box) box.value = new URLSearchParams(text).get('q') ?? '';
  });
  return (
    <form
      role="search"
      className="relative w-[420px] max-w-[40vw]"
      onSubmit={(event) => {
        event.preventDefault();
        if (timer.current) clearTimeout(timer.current);
        go(must(input.current).value.trim());
        if (onShelves) document.querySelector<HTMLElement>('[data-spine]')?.focus();
      }}
    >
      <Search aria-hidden size={14} className="absolute left-2.5 top-[9px] text-soft" />
      <input
        ref={input}
        key={onShelves ? 'shelves' : 'elsewhere'}
        type="search"
        name="q"
        defaultValue={current}
        aria-label="Find items"
        placeholder="Find items by title, heading or supplier"
        className="field w-full pl-8 pr-9"
        autoComplete="off"
        onChange={(event) => {
          if (!onShelves) return;
          if (timer.current) clearTimeout(timer.current);
          const value = event.target.value.trim();
          timer.current = setTimeout(() => go(value), 20);
        }}
        onKeyDown={(event) => {
          if (event.key === 'ArrowDown' && onShelves) {
            event.preventDefault();
            document.querySelector<HTMLElement>('[data-spine]')?.focus();
          }
        }}
      />
      <kbd className="key absolute right-2 top-[7px]">/</kbd>
    </form>
  );
}
