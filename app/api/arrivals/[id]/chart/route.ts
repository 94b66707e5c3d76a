import { readChartOfArrival } from '@/server/arrivals/charts';
import { serve } from '@/server/http';

export const POST = serve('POST /api/arrivals/:id/chart', ({ person, id, body }) =>
  readChartOfArrival(person, id, body),
);
