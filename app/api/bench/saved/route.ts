import { saveBench } from '@/server/bench/service';
import { body, route } from '@/server/http';

export const POST = route(async (person, request) => saveBench(person, null, await body(request)));
