import { decide } from '@/server/bench/decide';
import { body, route } from '@/server/web';

export const POST = route(async (person, request) => decide(person, await body(request)));
