import { removeChoice } from '@/server/bench/service';
import { route } from '@/server/web';

type C = { params: Promise<{ id: string }> };
export const DELETE = route<C>(async (person, _request, { params }) => removeChoice(person, Number((await params).id) || 0).then(() => ({})));
