import { addStation } from '@/server/stations/service';
import { body, route } from '@/server/web';

export const POST = route(async (person, request) => addStation(person, await body(request)));
