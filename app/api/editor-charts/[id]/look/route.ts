import { lookOfChart } from '@/server/editor-charts/reading';
import { serve } from '@/server/http';

export const POST = serve('POST /api/editor-charts/:id/look', ({ person, id, body }) => lookOfChart(person, id, body));
