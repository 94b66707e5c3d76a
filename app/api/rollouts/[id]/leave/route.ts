import { serve } from '@/server/http';
import { leaveOut } from '@/server/rollouts/service';

export const POST = serve('POST /api/rollouts/:id/leave', ({ person, id, body }) => leaveOut(person, id, body));
