import { serve } from '@/server/http';
import { newCode } from '@/server/stations/service';

export const POST = serve('POST /api/stations/:id/code', async ({ person, id }) => ({
  code: await newCode(person, id),
}));
