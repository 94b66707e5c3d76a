import { cookies, headers } from 'next/headers';
import { signIn, signOut } from '@/server/people/service';
import { body, COOKIE, keepSession, NETWORK_HEADER, problemResponse, sameOrigin } from '@/server/http';

/** It is asked by nobody that is known yet. */
const MOST_BYTES = 16 << 10;

export async function POST(request: Request): Promise<Response> {
  try {
    await sameOrigin();
    const { email, password } = await body<{ email: unknown; password: unknown }>(request, MOST_BYTES);
    const told = await headers();
    const begun = await signIn(
      String(email ?? ''),
      String(password ?? '').slice(0, 200),
      told.get(NETWORK_HEADER) ?? 'unknown',
      told.get('user-agent') ?? '',
    );
    await keepSession(begun);
    return Response.json({ name: begun.person.name });
  } catch (error) {
    return problemResponse(error);
  }
}

export async function DELETE(): Promise<Response> {
  try {
    await sameOrigin();
    const jar = await cookies();
    const token = jar.get(COOKIE)?.value;
    if (token) await signOut(token);
    jar.delete(COOKIE);
    return Response.json({});
  } catch (error) {
    return problemResponse(error);
  }
}
