import { serve } from '@/server/http';
import { undoBulk } from '@/server/items/edit';

export const POST = serve('POST /api/items/bulk/undo', ({ person, body }) => undoBulk(person, body));
