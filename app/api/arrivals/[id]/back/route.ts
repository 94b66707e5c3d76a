import { bringBackArrival } from '@/server/arrivals/service';
import { serve } from '@/server/http';

export const POST = serve('POST /api/arrivals/:id/back', ({ person, id }) => bringBackArrival(person, id));
