import { serve } from '@/server/http';
import { bindReference, referencesOf } from '@/server/references/service';

export const GET = serve('GET /api/versions/:id/references', async ({ person, id }) => ({
  references: await referencesOf(person, id),
}));
export const POST = serve('POST /api/versions/:id/references', ({ person, id, body }) =>
  bindReference(person, id, body),
);
