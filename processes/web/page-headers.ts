/**
 * What goes with every answer, and what a page is given beside: a content security policy with a nonce of its own, and the
 * address that was asked for. It is done here and not by a proxy of Next's, which costs every page a second way through it.
 */
import { randomUUID } from 'node:crypto';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { parseAndValidateFlightRouterState } from 'next/dist/server/app-render/parse-and-validate-flight-router-state.js';

/** @param isDevelopment whether Next's tools, which evaluate code and write styles, are to work */
export function contentPolicy(nonce: string, isDevelopment = false): string {
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' 'wasm-unsafe-eval'${isDevelopment ? " 'unsafe-eval'" : ''}`,
    isDevelopment ? "style-src 'self' 'unsafe-inline'" : `style-src 'self' 'nonce-${nonce}'`,
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "worker-src 'self' blob:",
    `connect-src 'self'${isDevelopment ? ' ws:' : ''}`,
    "font-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
}

const usual = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'same-origin',
  'x-frame-options': 'DENY',
} as const;

const isPage = (address: string): boolean => !/^\/(api|_next|icon\.svg)(\/|\?|$)/.test(address);
const ZERO = /%00/g;

/** The address as somebody would type it: without what Next adds when it asks for a part of a page. It may be no address at all. */
function asTyped(address: string): string {
  const [path = '', ...rest] = address.split('?');
  const asked = rest
    .join('?')
    .split('&')
    .filter((part) => part && !part.startsWith('_rsc='))
    .join('&');
  return asked ? `${path}?${asked}` : path;
}

const SHOWN = 'next-router-state-tree';

/**
 * A browser that asks for a part of a page says which parts it shows. Where Next cannot read that, it answers 500; where
 * nothing is said, with the whole page. Next's own reading decides, since each version of it writes the parts in its own way.
 */
function forgetUnreadableParts(request: IncomingMessage): void {
  const shown = request.headers[SHOWN];
  if (shown === undefined) return;
  try {
    parseAndValidateFlightRouterState(shown);
  } catch {
    delete request.headers[SHOWN];
  }
}

/** Begins with one stroke, and so leads to nobody else. */
const ownAddress = (address: string): string => address.replace(/^[/\\]*/, '/');

/**
 * Sets the headers of an answer, and those by which a page of Next's knows its nonce and its address. True where it has
 * answered by itself: a zero character is in no name that we hold, and the database refuses it.
 */
export function giveHeaders(request: IncomingMessage, response: ServerResponse, isDevelopment = false): boolean {
  const address = request.url ?? '/';
  for (const [name, value] of Object.entries(usual)) response.setHeader(name, value);
  forgetUnreadableParts(request);
  if (!isPage(address)) return false;
  if (address.includes('%00')) {
    response.writeHead(307, { location: ownAddress(address.replaceAll(ZERO, '')) });
    response.end();
    return true;
  }
  const policy = contentPolicy(Buffer.from(randomUUID()).toString('base64'), isDevelopment);
  // Next takes the nonce for its own scripts from the request's
  request.headers['content-security-policy'] = policy;
  request.headers['x-address'] = asTyped(address);
  response.setHeader('content-security-policy', policy);
  return false;
}
