import { orderShelves } from '@/server/items/shelves';
import { body, route } from '@/server/http';

export const POST = route(async (person, request) => orderShelves(person, await body(request)).then(() => ({})));
