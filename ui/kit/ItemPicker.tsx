'use client';
/** Finds an item by typing, in a dialog; arrows and Enter, or a click. */
import { Dialog } from 'radix-ui';
import { useEffect, useRef, useState } from 'react';
import { call } from './call';
import { Selvedge } from './Selvedge';

interface Found {
  id: string;
  title: string;
  kind: string;
  headings: string[];
  shelf: string;
  selvedge: [string, string][] | null;
}

export function ItemPicker({
  open,
  title,
  kind,
  onPick,
  onClose,
}: {
  open: boolean;
  title: string;
  kind?: string;
  onPick: (item: { id: string; title: string }) => void;
  onClose: () => void;
}) {
  const [words, setWords] = useState('');
  const [found, setFound] = useState<Found[]>([]);
  const [at, setAt] = useState(0);
  const seq = useRef(0);
  useEffect(() => {
    if (!open) return;
    const n = ++seq.current;
    const timer = setTimeout(() => {
      void call<{ items: Found[] }>(`/api/search?q=${encodeURIComponent(words)}${kind ? `&kind=${kind}` : ''}&most=12`)
        .then((r) => {
          if (n === seq.current) {
            setFound(r.items);
            setAt(0);
          }
        })
        .catch(() => {});
    }, 80);
    return () => clearTimeout(timer);
  }, [words, open, kind]);
  const pick = (found: Found | undefined) => {
    if (found) {
      onPick(found);
      setWords('');
    }
  };
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[14vh] z-50 w-[520px] max-w-[92vw] -translate-x-1/2 border border-line bg-paper p-4"
          style={{ boxShadow: 'var(--shade)' }}
        >
          <Dialog.Title className="mb-2 text-[17px]">{title}</Dialog.Title>
          <input
            autoFocus
            className="field w-full"
            aria-label="Find an item"
            placeholder="Type a few letters"
            value={words}
            onChange={(e) => setWords(e.target.value)}
            role="combobox"
            aria-expanded="true"
            aria-controls="picker-list"
            aria-activedescendant={found[at] ? `picker-${at}` : undefined}
            onKeyDown={(event) => {
              if (event.key === 'ArrowDown') {
                event.preventDefault();
                setAt(Math.min(found.length - 1, at + 1));
              } else if (event.key === 'ArrowUp') {
                event.preventDefault();
                setAt(Math.max(0, at - 1));
              } else if (event.key === 'Enter') {
                event.preventDefault();
                pick(found[at]);
              }
            }}
          />
          <ul id="picker-list" role="listbox" aria-label="Items found" className="mt-2 max-h-[46vh] overflow-auto">
            {found.map((found, i) => (
              <li
                key={found.id}
                id={`picker-${i}`}
                role="option"
                aria-selected={i === at}
                className={`flex cursor-pointer items-center gap-3 px-2 py-1.5 ${i === at ? 'bg-verd-wash' : ''}`}
                onMouseEnter={() => setAt(i)}
                onClick={() => pick(found)}
              >
                <Selvedge threads={found.selvedge} className="h-[30px] w-[36px] shrink-0" />
                <span className="min-w-0">
                  <span className="block truncate font-serif text-[15px]">{found.title}</span>
                  <span className="block truncate text-[12px] text-soft">
                    {found.kind.replace('-', ' ')} on {found.shelf}
                    {found.headings.length ? `, ${found.headings.join(' / ')}` : ''}
                  </span>
                </span>
              </li>
            ))}
          </ul>
          {!found.length && (
            <p className="py-3 text-soft">{words ? 'Nothing matches.' : 'Nothing stands on the shelves yet.'}</p>
          )}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
