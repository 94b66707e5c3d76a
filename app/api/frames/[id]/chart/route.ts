import { placeChart } from '@/server/charts/service';
import { serve } from '@/server/http';

export const PUT = serve('PUT /api/frames/:id/chart', ({ person, id, body }) => placeChart(person, id, body));
