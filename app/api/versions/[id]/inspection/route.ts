import { serve } from '@/server/http';
import { inspectionById } from '@/server/items/service';

export const GET = serve('GET /api/versions/:id/inspection', async ({ person, id }) => ({
  inspection: await inspectionById(person, id),
}));
