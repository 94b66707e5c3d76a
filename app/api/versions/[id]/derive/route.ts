import { serve } from '@/server/http';
import { derive } from '@/server/versions/derive';

/** Another form of a version, as an item of its own. */
export const POST = serve('POST /api/versions/:id/derive', ({ person, id, body }) => derive(person, id, body));
