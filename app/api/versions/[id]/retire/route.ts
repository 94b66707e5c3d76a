import { retire } from '@/server/versions/service';
import { route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

export const POST = route<C>(async (person, _r, { params }) => retire(person, (await params).id).then(() => ({})));
