'use client';
/** What opens the palette: a button that says its keys, and the keys. It is fetched when it is asked for. */
import { useEffect, useState } from 'react';
import { fetchedWhenShown } from '../kit/fetched';

const Palette = fetchedWhenShown(() => import('./Palette').then((module) => module.Palette));

export function PaletteKey({ may }: { may: readonly string[] }) {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() !== 'k' || !(event.ctrlKey || event.metaKey) || event.altKey || event.shiftKey)
        return;
      event.preventDefault();
      setOpen(true);
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, []);
  return (
    <>
      <button className="button quiet" aria-haspopup="dialog" onClick={() => setOpen(true)}>
        Go to
        <kbd className="key max-[900px]:hidden">Ctrl K</kbd>
      </button>
      {open && <Palette may={may} onClose={() => setOpen(false)} />}
    </>
  );
}
