import { serve } from '@/server/http';
import { moveRollout } from '@/server/rollouts/service';

export const POST = serve('POST /api/rollouts/:id', async ({ person, id, body }) => ({
  id: await moveRollout(person, id, body),
}));
