import { offeredFor } from '@/server/gear/offered';
import { serve } from '@/server/http';

export const POST = serve('POST /api/gear/offered', ({ person, body }) => offeredFor(person, body));
