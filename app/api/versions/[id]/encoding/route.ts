import { confirmEncoding } from '@/server/items/service';
import { body, route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

export const POST = route<C>(async (person, request, { params }) =>
  confirmEncoding(person, (await params).id, await body(request)).then(() => ({})),
);
