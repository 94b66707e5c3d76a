import { serve } from '@/server/http';
import { setRibbon } from '@/server/items/service';

export const POST = serve('POST /api/items/:id/ribbon', ({ person, id, body }) => setRibbon(person, id, body));
