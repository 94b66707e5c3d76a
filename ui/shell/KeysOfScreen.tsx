'use client';
/** A question mark shows the keys of the screen. */
import { usePathname } from 'next/navigation';
import { useEffect, useState } from 'react';
import { fetchedWhenShown } from '../kit/fetched';
import { isTyping } from './model/typing';

/** Fetched when it is asked for. */
const KeysDialog = fetchedWhenShown(() => import('./KeysDialog').then((module) => module.KeysDialog));

export function KeysOfScreen() {
  const path = usePathname();
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== '?' || event.ctrlKey || event.metaKey || isTyping(event.target)) return;
      event.preventDefault();
      setOpen(true);
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, []);
  return open ? <KeysDialog path={path} onClose={() => setOpen(false)} /> : null;
}
