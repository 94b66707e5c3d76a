import { serve } from '@/server/http';
import { noteByHand } from '@/server/rollouts/by-hand';

export const POST = serve('POST /api/rollouts/:id/by-hand', ({ person, id, body }) => noteByHand(person, id, body));
