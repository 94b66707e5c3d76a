'use client';
import { must } from '@/core/must';
import { Search } from 'lucide-react';
import { usePathname, useRouter, useSearchParams } from 'next/navigation';
import { Suspense, useEffect, useLayoutEffect, useRef, type RefObject } from 'react';
import { earlyChanges, isPageRestored, tellAgain, type EarlyChange } from './early-changes';
import { isTyping } from './model/typing';
import { useSuggestions } from './hooks/suggestions';
import { offerAddress, useAddressChange } from '../kit/own-address';
import { Suggestions } from './Suggestions';

/** Search as you type; "/" brings the cursor here from anywhere. The shelves follow what is typed, other pages suggest items. */
export function SearchBox() {
  return (
    <Suspense>
      <Box />
    </Suspense>
  );
}

/** Long enough for two keys of a fast typist to ask once. */
const TYPING_MS = 20;

/** One listener for both boxes: while one takes the place of the other, a key that is pressed still finds that which stands. */
function Box() {
  const input = useRef<HTMLInputElement>(null);
  useSlash(input);
  useAwakening();
  return usePathname() === '/shelves' ? <OfShelves input={input} /> : <Elsewhere input={input} />;
}

interface BoxProps {
  input: RefObject<HTMLInputElement | null>;
}

/** The page answers to keys and clicks from here on, and to those that came too early. */
function useAwakening(): void {
  const early = useRef<EarlyChange[]>([]);
  useLayoutEffect(() => {
    early.current = earlyChanges(document);
  }, []);
  useEffect(() => {
    tellAgain(early.current, isPageRestored());
    early.current = [];
    document.documentElement.dataset.awake = 'yes';
  }, []);
}

/** "/" brings the cursor to the box. */
function useSlash(input: RefObject<HTMLInputElement | null>): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === '/' && !isTyping(event.target) && !event.ctrlKey && !event.metaKey) {
        event.preventDefault();
        input.current?.focus();
        input.current?.select();
      }
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [input]);
}

const form = 'relative w-[420px] min-w-0 shrink';
const placeholder = 'Find items by title, heading or supplier';
const field = { name: 'q', 'aria-label': 'Find items', placeholder, className: 'field w-full pl-8 pr-9' };
const Lens = () => <Search aria-hidden size={14} className="absolute left-2.5 top-[9px] text-soft" />;
const Key = () => <kbd className="key absolute right-2 top-[7px]">/</kbd>;

const focusFirstSpine = (): void => document.querySelector<HTMLElement>('[data-spine][tabindex="0"]')?.focus();

function fillUnlessTypedIn(box: HTMLInputElement | null, words: string): void {
  if (box && document.activeElement !== box) box.value = words;
}

/** On the shelves, what is found is the page itself. */
function OfShelves({ input }: BoxProps) {
  const router = useRouter();
  const params = useSearchParams();
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const go = (query: string) => {
    const next = new URLSearchParams(location.search);
    if (query) next.set('q', query);
    else next.delete('q');
    next.delete('at');
    if (!offerAddress('/shelves', next.toString())) router.push(`/shelves${next.size ? `?${next}` : ''}`);
  };
  // "show all" and the like take the words away; what is being typed is left alone
  useAddressChange((text) => fillUnlessTypedIn(input.current, new URLSearchParams(text).get('q') ?? ''));
  const asked = (ms: number) => {
    if (timer.current) clearTimeout(timer.current);
    const words = must(input.current).value.trim();
    if (ms) timer.current = setTimeout(() => go(words), ms);
    else go(words);
  };
  return (
    <form
      role="search"
      className={form}
      onSubmit={(event) => {
        event.preventDefault();
        asked(0);
        focusFirstSpine();
      }}
    >
      <Lens />
      <input
        {...field}
        ref={input}
        type="search"
        defaultValue={params.get('q') ?? ''}
        autoComplete="off"
        onChange={() => asked(TYPING_MS)}
        onKeyDown={(event) => {
          if (event.key !== 'ArrowDown') return;
          event.preventDefault();
          focusFirstSpine();
        }}
      />
      <Key />
    </form>
  );
}

/** On any other page, items are suggested below the box; Enter alone shows all that answer on the shelves. */
function Elsewhere({ input }: BoxProps) {
  const router = useRouter();
  const suggestions = useSuggestions((href) => {
    input.current?.blur();
    router.push(href);
  });
  const { typed, isOpen, box, list } = suggestions;
  return (
    <form
      role="search"
      className={form}
      onSubmit={(event) => {
        event.preventDefault();
        suggestions.enter();
      }}
    >
      <Lens />
      <input {...field} {...box} ref={input} type="text" value={typed} autoComplete="off" />
      <Key />
      {isOpen && <Suggestions {...list} />}
    </form>
  );
}
