import { trackRequest } from '@/server/gear/service';
import { serve } from '@/server/http';

export const PATCH = serve('PATCH /api/gear/requests/:id', ({ person, id, body }) => trackRequest(person, id, body));
