'use client';
/** Dialogs lock the page's scrolling with a style element; it may only be applied with the page's nonce. Import for its effect. */
import { setNonce } from 'get-nonce';

if (typeof document !== 'undefined') setNonce(document.querySelector<HTMLScriptElement>('script[nonce]')?.nonce ?? '');
