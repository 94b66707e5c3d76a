import { layChartOut } from '@/server/charts/service';
import { body, route } from '@/server/http';

export const PATCH = route<{ params: Promise<{ id: string }> }>(async (person, request, { params }) =>
  layChartOut(person, (await params).id, await body(request)),
);
