'use client';
// from the first page on: dialogs are fetched when they are opened, which is too late to learn what opened them
import '../kit/focus-history';
import { useReturnFocus } from './hooks/return-focus';

/** Shows nothing: brings the focus back to the link by which a page was left, when somebody goes back to it. */
export function ReturnFocus(): null {
  useReturnFocus();
  return null;
}
