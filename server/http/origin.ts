/** Requests that change something must come from our own pages. */
import 'server-only';
import { headers } from 'next/headers';
import { Problem } from '@/core/problem';

const fromElsewhere = (where: string): Problem =>
  new Problem('origin', 'This request came from another site.', where, 'Open Etagere itself and try again.');

/** Throws a Problem for a request that another site's page made. */
export async function sameOrigin(): Promise<void> {
  const request = await headers();
  const origin = request.get('origin');
  const host = request.get('x-forwarded-host') ?? request.get('host');
  // "null" is what a browser says of a page that has no origin, such as one in a sandbox
  if (origin && (!URL.canParse(origin) || new URL(origin).host !== host)) throw fromElsewhere(origin.slice(0, 100));
  if (request.get('sec-fetch-site') === 'cross-site') throw fromElsewhere('sec-fetch-site');
}
