import { serve } from '@/server/http';
import { moveItems } from '@/server/shelves/service';

export const POST = serve('POST /api/shelves/items', ({ person, body }) => moveItems(person, body));
