import { addChart, listCharts } from '@/server/charts/service';
import { body, route } from '@/server/http';

export const GET = route(async (person) => ({ charts: await listCharts(person) }));
export const POST = route(async (person, request) => addChart(person, await body(request, 3 << 20)));
