import { putAway } from '@/server/shelves/service';
import { body, route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

export const POST = route<C>(async (person, request, { params }) =>
  putAway(person, (await params).id, (await body<{ away: boolean }>(request)).away === true).then(() => ({})),
);
