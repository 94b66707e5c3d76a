import { makeEditorChart } from '@/server/editor-charts/service';
import { serve } from '@/server/http';

export const POST = serve('POST /api/editor-charts', ({ person, body }) => makeEditorChart(person, body));
