import { moveItems } from '@/server/shelves/service';
import { body, route } from '@/server/http';

export const POST = route(async (person, request) => moveItems(person, await body(request)).then(() => ({})));
