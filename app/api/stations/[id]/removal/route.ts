import { serve } from '@/server/http';
import { planRemoval } from '@/server/rollouts/removal';

export const POST = serve('POST /api/stations/:id/removal', ({ person, id, body }) => planRemoval(person, id, body));
