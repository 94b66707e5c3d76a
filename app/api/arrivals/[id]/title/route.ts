import { titleEntry } from '@/server/arrivals/service';
import { serve } from '@/server/http';

export const POST = serve('POST /api/arrivals/:id/title', ({ person, id, body }) => titleEntry(person, id, body));
