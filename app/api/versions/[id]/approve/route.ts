import { serve } from '@/server/http';
import { approve } from '@/server/items/approval';

export const POST = serve('POST /api/versions/:id/approve', ({ person, id }) => approve(person, id));
