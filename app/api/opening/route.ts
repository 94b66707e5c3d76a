import { serve } from '@/server/http';
import { setOpening } from '@/server/opening/service';

export const PUT = serve('PUT /api/opening', ({ person, body }) => setOpening(person, body));
