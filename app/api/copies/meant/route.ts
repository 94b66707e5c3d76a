import { markMeant } from '@/server/copies/service';
import { serve } from '@/server/http';

/** Items that do the same, and are meant to be several. */
export const POST = serve('POST /api/copies/meant', ({ person, body }) => markMeant(person, body));
