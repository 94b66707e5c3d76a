import { addStation } from '@/server/stations/service';
import { body, route } from '@/server/http';

export const POST = route(async (person, request) => addStation(person, await body(request)));
