import { askFor } from '@/server/gear/service';
import { serve } from '@/server/http';

export const POST = serve('POST /api/gear/requests', ({ person, body }) => askFor(person, body));
