/** Who is signed in, by the session that the browser's cookie names. */
import 'server-only';
import { cookies, headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { cache } from 'react';
import { anyone, personOf, type SignedIn } from '../people/service';
import type { Person } from '../people/roles';
import { beginningOfPage, type PageBeginning } from '../studio/page-beginning';

export const COOKIE = 'etagere';

/** The token of the session that asks; empty where there is none. */
export const sessionToken = async (): Promise<string> => (await cookies()).get(COOKIE)?.value ?? '';

/** Asked once a request. */
export const signedIn = cache(async (): Promise<Person | null> => personOf(await sessionToken()));

/**
 * For pages, asked once for all parts of one. Whoever is not signed in goes to the door, and from there on to the page; in
 * an empty studio to the welcome page.
 */
export const pageBeginning = cache(async (): Promise<PageBeginning> => {
  const beginning = await beginningOfPage(await sessionToken());
  if (beginning) return beginning;
  if (!(await anyone())) redirect('/welcome');
  const asked = (await headers()).get('x-address');
  redirect(asked ? `/sign-in?to=${encodeURIComponent(asked)}` : '/sign-in');
});

export const signedInPerson = async (): Promise<Person> => (await pageBeginning()).person;

/** Gives the browser its session. Scripts cannot read it, and over TLS it goes nowhere else. */
export async function keepSession({ token, days }: SignedIn): Promise<void> {
  (await cookies()).set(COOKIE, token, {
    httpOnly: true,
    sameSite: 'lax',
    path: '/',
    maxAge: days * 86400,
    secure: (await headers()).get('x-forwarded-proto') === 'https',
  });
}
