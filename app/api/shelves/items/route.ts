import { moveItems } from '@/server/items/shelves';
import { body, route } from '@/server/web';

export const POST = route(async (person, request) => moveItems(person, await body(request)).then(() => ({})));
