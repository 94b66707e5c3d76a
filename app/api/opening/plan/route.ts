import { serve } from '@/server/http';
import { planOpening } from '@/server/opening/service';

export const POST = serve('POST /api/opening/plan', ({ person, body }) => planOpening(person, body));
