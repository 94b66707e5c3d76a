import { headers } from 'next/headers';
import type { BodyOf } from '@/core/api';
import { body, keepSession, NETWORK_HEADER, problemResponse, sameOrigin } from '@/server/http';
import { join } from '@/server/people/invitations';

/** It is asked by somebody who is known by the link alone. */
const MOST_BYTES = 16 << 10;

export async function POST(request: Request): Promise<Response> {
  try {
    await sameOrigin();
    const asked = await body<BodyOf<'POST /api/join'>>(request, MOST_BYTES);
    const told = await headers();
    const begun = await join(asked, told.get(NETWORK_HEADER) ?? 'unknown', told.get('user-agent') ?? '');
    await keepSession(begun);
    return Response.json({ name: begun.person.name });
  } catch (error) {
    return problemResponse(error);
  }
}
