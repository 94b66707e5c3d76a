import { serve } from '@/server/http';
import { planRollout } from '@/server/rollouts/planning';

export const POST = serve('POST /api/rollouts', async ({ person, body }) => ({ id: await planRollout(person, body) }));
