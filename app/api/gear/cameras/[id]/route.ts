import { keepGear, removeGear } from '@/server/gear/service';
import { body, route } from '@/server/http';

type Context = { params: Promise<{ id: string }> };
export const PUT = route(async (person, request, { params }: Context) =>
  keepGear(person, 'camera', (await params).id, await body(request)),
);
export const DELETE = route(async (person, _request, { params }: Context) =>
  removeGear(person, 'camera', (await params).id).then(() => ({})),
);
