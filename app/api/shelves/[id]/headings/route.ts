import { orderByHeadings } from '@/server/shelves/service';
import { route } from '@/server/http';

export const POST = route<{ params: Promise<{ id: string }> }>(async (person, _r, { params }) =>
  orderByHeadings(person, (await params).id).then(() => ({})),
);
