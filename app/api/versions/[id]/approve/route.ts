import { approve } from '@/server/items/service';
import { route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

export const POST = route<C>(async (person, _r, { params }) => approve(person, (await params).id).then(() => ({})));
