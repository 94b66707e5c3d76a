import { keepGear } from '@/server/gear/service';
import { body, route } from '@/server/http';

export const POST = route(async (person, request) => keepGear(person, 'camera', null, await body(request)));
