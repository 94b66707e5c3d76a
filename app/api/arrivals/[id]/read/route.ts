import { readAgain } from '@/server/arrivals/service';
import { serve } from '@/server/http';

export const POST = serve('POST /api/arrivals/:id/read', ({ person, id }) => readAgain(person, id));
