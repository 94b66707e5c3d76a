/** Gives each page a content security policy with a nonce of its own. Routes under /api are left alone: their bodies must not be buffered. */
import { NextResponse, type NextRequest } from 'next/server';

export function proxy(request: NextRequest): NextResponse {
  // a zero character is in no name that we hold, and the database refuses it
  if (request.nextUrl.search.includes('%00')) {
    const url = request.nextUrl.clone();
    url.search = url.search.replaceAll('%00', '');
    return NextResponse.redirect(url);
  }
  const nonce = btoa(crypto.randomUUID());
  const dev = process.env.NODE_ENV === 'development';
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' 'wasm-unsafe-eval'${dev ? " 'unsafe-eval'" : ''}`,
    dev ? "style-src 'self' 'unsafe-inline'" : `style-src 'self' 'nonce-${nonce}'`,
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "worker-src 'self' blob:",
    `connect-src 'self'${dev ? ' ws:' : ''}`,
    "font-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  // a page that sends somebody to the door tells where they wanted to go
  headers.set('x-address', request.nextUrl.pathname + request.nextUrl.search);
  headers.set('content-security-policy', policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('content-security-policy', policy);
  return response;
}

export const config = { matcher: [{ source: '/((?!api|_next/static|_next/image|icon.svg).*)' }] };
