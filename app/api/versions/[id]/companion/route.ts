import { serve } from '@/server/http';
import { makeCompanion } from '@/server/versions/preset-forms';

export const POST = serve('POST /api/versions/:id/companion', ({ person, id, body }) =>
  makeCompanion(person, id, body),
);
