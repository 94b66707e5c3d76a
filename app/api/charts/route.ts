import { addChart, listCharts } from '@/server/charts/service';
import { serve } from '@/server/http';

export const GET = serve('GET /api/charts', async ({ person }) => ({ charts: await listCharts(person) }));
export const POST = serve('POST /api/charts', ({ person, body }) => addChart(person, body), { most: 3 << 20 });
