import { explain } from '@/server/gear/service';
import { body, route } from '@/server/http';

export const POST = route(async (person, request) => ({ groups: await explain(person, await body(request)) }));
