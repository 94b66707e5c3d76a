import { mergeItems } from '@/server/copies/service';
import { serve } from '@/server/http';

/** Merges items that do the same into one. */
export const POST = serve('POST /api/copies', ({ person, body }) => mergeItems(person, body));
