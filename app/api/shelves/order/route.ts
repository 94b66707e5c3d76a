import { orderShelves } from '@/server/shelves/service';
import { body, route } from '@/server/http';

export const POST = route(async (person, request) => orderShelves(person, await body(request)).then(() => ({})));
