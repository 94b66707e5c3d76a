import { serve } from '@/server/http';
import { previewDerived } from '@/server/versions/derive';

/** What would be made, with its error, without keeping it. */
export const POST = serve('POST /api/versions/:id/derive/preview', ({ person, id, body }) =>
  previewDerived(person, id, body),
);
