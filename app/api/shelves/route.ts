import { addShelf } from '@/server/items/shelves';
import { body, route } from '@/server/http';

export const POST = route(async (person, request) => ({ id: await addShelf(person, await body(request)) }));
