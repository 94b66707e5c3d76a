import { giveUpChart } from '@/server/editor-charts/service';
import { serve } from '@/server/http';

export const DELETE = serve('DELETE /api/editor-charts/:id', ({ person, id }) => giveUpChart(person, id));
