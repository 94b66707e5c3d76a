import { placeChart } from '@/server/charts/service';
import { body, route } from '@/server/http';

export const PUT = route<{ params: Promise<{ id: string }> }>(async (person, request, { params }) =>
  placeChart(person, (await params).id, await body(request)).then(() => ({})),
);
