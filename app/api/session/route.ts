import { cookies, headers } from 'next/headers';
import { signIn, signOut } from '@/server/people/service';
import { body, COOKIE, problemResponse, sameOrigin } from '@/server/web';

export async function POST(request: Request): Promise<Response> {
  try {
    await sameOrigin();
    const { email, password } = await body<{ email: unknown; password: unknown }>(request);
    const h = await headers();
    const { token, days, person } = await signIn(
      String(email ?? ''),
      String(password ?? '').slice(0, 200),
      h.get('x-forwarded-for')?.split(',')[0] ?? 'local',
      h.get('user-agent') ?? '',
    );
    (await cookies()).set(COOKIE, token, {
      httpOnly: true,
      sameSite: 'lax',
      path: '/',
      maxAge: days * 86400,
      secure: h.get('x-forwarded-proto') === 'https',
    });
    return Response.json({ name: person.name });
  } catch (e) {
    return problemResponse(e);
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
  } catch (e) {
    return problemResponse(e);
  }
}
