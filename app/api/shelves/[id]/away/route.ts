import { serve } from '@/server/http';
import { putAway } from '@/server/shelves/service';

export const POST = serve('POST /api/shelves/:id/away', ({ person, id, body }) =>
  putAway(person, id, body.away === true),
);
