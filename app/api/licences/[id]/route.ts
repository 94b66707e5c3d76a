import { changeLicence } from '@/server/licences/service';
import { body, route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

export const PATCH = route<C>(async (person, request, { params }) =>
  changeLicence(person, (await params).id, await body(request)).then(() => ({})),
);
