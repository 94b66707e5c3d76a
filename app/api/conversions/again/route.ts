import { planAgainOf } from '@/server/conversions/service';
import { serve } from '@/server/http';

export const POST = serve('POST /api/conversions/again', async ({ person, body }) => ({
  id: await planAgainOf(person, body),
}));
