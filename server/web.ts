/** What routes and pages share: who is signed in, and how a fault reaches the screen. */
import 'server-only';
import { randomUUID } from 'node:crypto';
import { cookies, headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { Problem } from '@/core/problem';
import { isUuid } from '@/core/uuid';
import { anyone, personOf } from './people/service';
import type { Person } from './people/roles';

export const COOKIE = 'etagere';

export async function signedIn(): Promise<Person | null> {
  return personOf((await cookies()).get(COOKIE)?.value);
}

/** For pages: whoever is not signed in goes to the door, or to the welcome page of an empty studio. */
export async function signedInPerson(): Promise<Person> {
  const person = await signedIn();
  if (!person) redirect((await anyone()) ? '/sign-in' : '/welcome');
  return person;
}

const statusOf: Record<string, number> = {
  'not-allowed': 403,
  'not-found': 404,
  'sign-in-needed': 401,
  'agent-unknown': 401,
  'sign-in-limit': 429,
  origin: 403,
};

export function problemResponse(error: unknown): Response {
  if (error instanceof Problem)
    return Response.json({ error: error.toJSON() }, { status: statusOf[error.code] ?? 422 });
  const incident = randomUUID().slice(0, 8);
  console.error(`incident ${incident}:`, error);
  return Response.json(
    {
      error: {
        code: 'bug',
        message: 'Something went wrong that is not your doing.',
        where: `incident ${incident}`,
        remedy: 'Try again; if it stays so, tell the people who look after Etagere this number.',
      },
    },
    { status: 500 },
  );
}

/** Requests that change something must come from our own pages. */
export async function sameOrigin(): Promise<void> {
  const readonlyHeaders = await headers();
  const origin = readonlyHeaders.get('origin');
  if (origin && new URL(origin).host !== (readonlyHeaders.get('x-forwarded-host') ?? readonlyHeaders.get('host')))
    throw new Problem('origin', 'This request came from another site.', origin, 'Open Etagere itself and try again.');
  if (readonlyHeaders.get('sec-fetch-site') === 'cross-site')
    throw new Problem(
      'origin',
      'This request came from another site.',
      'sec-fetch-site',
      'Open Etagere itself and try again.',
    );
}

/** What no address of ours holds is told here once: an id in the path is a UUID, and a zero character is nowhere. */
async function plainAddress(request: Request, context: unknown): Promise<void> {
  const { id } = (await (context as { params?: Promise<{ id?: string }> } | undefined)?.params) ?? {};
  if (id !== undefined && !isUuid(id))
    throw new Problem('not-found', 'Nothing stands at this address.', id.slice(0, 80), 'Go back and reload the page.');
  if (request.url.includes('%00'))
    throw new Problem('input-invalid', 'The address holds a zero character.', 'address', 'Type it again without.');
}

/** Wraps a route: origin, session, and faults as JSON. */
export function route<C>(
  work: (person: Person, request: Request, context: C) => Promise<unknown>,
): (request: Request, context: C) => Promise<Response> {
  return async (request, context) => {
    try {
      if (request.method !== 'GET') await sameOrigin();
      const person = await signedIn();
      if (!person)
        throw new Problem(
          'sign-in-needed',
          'You are not signed in any more.',
          'session',
          'Sign in again; nothing that was confirmed is lost.',
        );
      await plainAddress(request, context);
      const out = await work(person, request, context);
      return out instanceof Response ? out : Response.json(out ?? {});
    } catch (error) {
      return problemResponse(error);
    }
  };
}

/** A request's JSON object, with a limit. Zero characters, which the database cannot hold, are dropped. */
export async function body<T extends object>(request: Request, most = 1 << 20): Promise<T> {
  const text = await request.text();
  const refuse = (message: string, remedy: string): Problem => new Problem('input-invalid', message, 'body', remedy);
  if (text.length > most) throw refuse('The request is too large.', 'Send less at once.');
  let value: unknown;
  try {
    value = JSON.parse(
      text || '{}',
      text.includes('\\u0000') ? (_, v: unknown) => (typeof v === 'string' ? v.replaceAll('\0', '') : v) : undefined,
    );
  } catch {
    throw refuse('The request is no JSON.', 'Reload the page and try again.');
  }
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    throw refuse('The request is no JSON object.', 'Reload the page and try again.');
  return value as T;
}

/** A request's bytes, with a limit that holds whatever its headers say. */
export async function bytesOf(request: Request, most: number): Promise<Uint8Array> {
  const parts: Uint8Array[] = [];
  let size = 0;
  if (request.body)
    for await (const part of request.body as unknown as AsyncIterable<Uint8Array>) {
      size += part.length;
      if (size > most)
        throw new Problem(
          'limit-size',
          `At most ${most / 1e6} MB are taken at once.`,
          'the file',
          'Send a smaller one.',
        );
      parts.push(part);
    }
  return new Uint8Array(Buffer.concat(parts));
}
