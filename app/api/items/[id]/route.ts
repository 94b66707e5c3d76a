import { editItem } from '@/server/items/edit';
import { body, route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

export const PATCH = route<C>(async (person, request, { params }) =>
  editItem(person, (await params).id, await body(request)),
);
