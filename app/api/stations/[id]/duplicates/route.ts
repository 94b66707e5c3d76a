import { serve } from '@/server/http';
import { planWithoutDuplicates } from '@/server/rollouts/duplicates';

export const POST = serve('POST /api/stations/:id/duplicates', ({ person, id, body }) =>
  planWithoutDuplicates(person, id, body),
);
