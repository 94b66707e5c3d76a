import { decide } from '@/server/bench/service';
import { body, route } from '@/server/web';

export const POST = route(async (person, request) => decide(person, await body(request)));
