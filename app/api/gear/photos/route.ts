import { explain } from '@/server/gear/service';
import { serve } from '@/server/http';

export const POST = serve('POST /api/gear/photos', async ({ person, body }) => ({
  groups: await explain(person, body),
}));
