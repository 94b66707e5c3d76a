import { describeItem } from '@/server/items/service';
import { body, route } from '@/server/web';

type C = { params: Promise<{ id: string }> };

export const PATCH = route<C>(async (person, request, { params }) => describeItem(person, (await params).id, await body(request)).then(() => ({})));
