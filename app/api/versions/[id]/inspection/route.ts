import { serve } from '@/server/http';
import { inspectionOf } from '@/server/items/service';

export const GET = serve('GET /api/versions/:id/inspection', async ({ person, id }) => ({
  inspection: await inspectionOf(person, id),
}));
