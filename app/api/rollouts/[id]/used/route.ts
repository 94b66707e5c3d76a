import { serve } from '@/server/http';
import { sayCameraUsed } from '@/server/rollouts/camera-used';

export const POST = serve('POST /api/rollouts/:id/used', ({ person, id, body }) => sayCameraUsed(person, id, body));
