/** Where one goes after signing in: to the page that was asked for, as long as it is one of ours. */
const HERE = 'http://here.invalid';
const USUAL = '/shelves';

export function localAddress(asked: string | undefined): string {
  if (!asked?.startsWith('/') || !URL.canParse(asked, HERE)) return USUAL;
  const { origin, pathname, search, hash } = new URL(asked, HERE);
  const isPage = origin === HERE && pathname !== '/' && !/^\/(sign-in|welcome|join|api|_next)(\/|$)/.test(pathname);
  return isPage ? pathname + search + hash : USUAL;
}
