import { serve } from '@/server/http';
import { moveBack } from '@/server/shelves/service';

export const POST = serve('POST /api/shelves/items/back', ({ person, body }) => moveBack(person, body));
