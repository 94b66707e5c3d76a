import { serve } from '@/server/http';
import { applyBulk } from '@/server/items/edit';

export const POST = serve('POST /api/items/bulk', ({ person, body }) => applyBulk(person, body));
