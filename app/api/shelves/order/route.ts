import { orderShelves } from '@/server/items/shelves';
import { body, route } from '@/server/web';

export const POST = route(async (person, request) => orderShelves(person, await body(request)).then(() => ({})));
