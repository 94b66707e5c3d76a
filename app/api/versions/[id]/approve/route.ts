import { approve } from '@/server/items/service';
import { route } from '@/server/web';

type C = { params: Promise<{ id: string }> };

export const POST = route<C>(async (person, _r, { params }) => approve(person, (await params).id).then(() => ({})));
