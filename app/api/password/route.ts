import { changePassword } from '@/server/people/sessions';
import { serve, sessionToken } from '@/server/http';

export const POST = serve('POST /api/password', async ({ person, body }) =>
  changePassword(person, await sessionToken(), body),
);
