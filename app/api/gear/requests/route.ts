import { askFor } from '@/server/gear/service';
import { body, route } from '@/server/http';

export const POST = route(async (person, request) => askFor(person, await body(request)));
