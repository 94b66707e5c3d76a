import { layChartOut } from '@/server/charts/service';
import { serve } from '@/server/http';

export const PATCH = serve('PATCH /api/charts/:id', ({ person, id, body }) => layChartOut(person, id, body));
