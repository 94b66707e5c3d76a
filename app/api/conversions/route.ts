import { planConversionOf } from '@/server/conversions/service';
import { serve } from '@/server/http';

export const POST = serve('POST /api/conversions', async ({ person, body }) => ({
  id: await planConversionOf(person, body),
}));
