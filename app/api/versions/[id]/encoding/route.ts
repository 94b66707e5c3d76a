import { serve } from '@/server/http';
import { confirmEncoding } from '@/server/items/encoding';

export const POST = serve('POST /api/versions/:id/encoding', ({ person, id, body }) =>
  confirmEncoding(person, id, body),
);
