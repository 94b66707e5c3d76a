'use client';
/** What was done, told in passing, with a way back where there is one. It stays over a change of the page. */
import { createContext, useContext } from 'react';

export interface Toast {
  words: string;
  /** puts it back as it was; what it throws is told in the toast's place */ undo?: () => Promise<unknown>;
  link?: { href: string; words: string };
}

export const ToastContext = createContext<(toast: Toast) => void>(() => {});

/** Tells what was done. */
export const useToast = (): ((toast: Toast) => void) => useContext(ToastContext);
