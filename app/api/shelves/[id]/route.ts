import { changeShelf, removeShelf } from '@/server/shelves/service';
import { body, route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

export const PATCH = route<C>(async (person, request, { params }) =>
  changeShelf(person, (await params).id, await body(request)).then(() => ({})),
);
export const DELETE = route<C>(async (person, _r, { params }) =>
  removeShelf(person, (await params).id).then(() => ({})),
);
