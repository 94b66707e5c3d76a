import { peopleEndpoints } from '@/core/api/people';
import { checked } from '@/server/input';
import { addPerson, anyone } from '@/server/people/service';
import { Problem } from '@/core/problem';
import { body, problemResponse, sameOrigin } from '@/server/http';
import { setupCodeIsRight } from '@/server/people/setup-code';

/** The first person of an empty studio, with the code that bin/start printed. */
export async function POST(request: Request): Promise<Response> {
  try {
    await sameOrigin();
    if (await anyone()) throw new Problem('not-allowed', 'There are people already.', 'people', 'Sign in instead.');
    const { code, ...input } = checked(peopleEndpoints['POST /api/people'].body, await body(request, 16 << 10));
    if (!(await setupCodeIsRight(code)))
      throw new Problem(
        'setup-code',
        'This is not the code that bin/start printed.',
        'code',
        'Look at the window in which Etagere was started.',
      );
    await addPerson(null, { ...input, role: 'librarian' });
    return Response.json({});
  } catch (error) {
    return problemResponse(error);
  }
}
