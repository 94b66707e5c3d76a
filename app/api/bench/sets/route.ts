import { saveSet } from '@/server/bench/service';
import { body, route } from '@/server/http';

export const POST = route(async (person, request) => saveSet(person, await body(request)));
