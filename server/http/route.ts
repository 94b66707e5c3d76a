/** What every route does before and after its own work: origin, session, address, and faults as JSON. */
import 'server-only';
import { Problem } from '@/core/problem';
import { isUuid } from '@/core/uuid';
import type { Person } from '../people/roles';
import { sameOrigin } from './origin';
import { problemResponse } from './problem-response';
import { signedIn } from './session';

type Work<Context> = (person: Person, request: Request, context: Context) => Promise<unknown>;

/** An address that none of ours is: an id in the path is a UUID, and a zero character is nowhere. */
async function checkAddress(request: Request, context: unknown): Promise<void> {
  const { params } = (context ?? {}) as { params?: Promise<{ id?: string }> };
  const { id } = (await params) ?? {};
  if (id !== undefined && !isUuid(id))
    throw new Problem('not-found', 'Nothing stands at this address.', id.slice(0, 80), 'Go back and reload the page.');
  if (request.url.includes('%00'))
    throw new Problem('input-invalid', 'The address holds a zero character.', 'address', 'Type it again without.');
}

/** A route for whoever is signed in; what the work returns is the answer, as JSON unless it is a Response. */
export function route<Context>(work: Work<Context>): (request: Request, context: Context) => Promise<Response> {
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
      await checkAddress(request, context);
      const answer = await work(person, request, context);
      return answer instanceof Response ? answer : Response.json(answer ?? {});
    } catch (error) {
      return problemResponse(error);
    }
  };
}
