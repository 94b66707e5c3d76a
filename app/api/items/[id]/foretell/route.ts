import { Problem } from '@/core/problem';
import { isUuid } from '@/core/uuid';
import { foretellFor, foretellForPhoto } from '@/server/gear/foretell';
import { serve } from '@/server/http';

export const GET = serve('GET /api/items/:id/foretell', async ({ person, id, query }) => {
  const frame = query.get('frame') ?? '';
  if (!isUuid(frame)) throw new Problem('input-invalid', 'Say for which frame.', 'frame', 'Choose a frame.');
  return foretellFor(person, id, frame);
});

export const POST = serve('POST /api/items/:id/foretell', ({ person, id, body }) => foretellForPhoto(person, id, body));
