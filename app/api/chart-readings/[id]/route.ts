import { forgetReading } from '@/server/editor-charts/reading';
import { serve } from '@/server/http';

export const DELETE = serve('DELETE /api/chart-readings/:id', ({ person, id }) => forgetReading(person, id));
