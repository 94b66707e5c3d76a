import { serve } from '@/server/http';
import { decideChanged } from '@/server/rollouts/changed-there';

export const POST = serve('POST /api/stations/:id/changed', ({ person, id, body }) => decideChanged(person, id, body));
