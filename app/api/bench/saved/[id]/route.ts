import { removeBench, saveBench } from '@/server/bench/service';
import { body, route } from '@/server/http';

type C = { params: Promise<{ id: string }> };
export const PATCH = route<C>(async (person, request, { params }) =>
  saveBench(person, (await params).id, await body(request)),
);
export const DELETE = route<C>(async (person, _request, { params }) =>
  removeBench(person, (await params).id).then(() => ({})),
);
