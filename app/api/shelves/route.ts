import { addShelf } from '@/server/shelves/service';
import { body, route } from '@/server/http';

export const POST = route(async (person, request) => ({ id: await addShelf(person, await body(request)) }));
