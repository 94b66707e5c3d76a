import { decide } from '@/server/bench/decide';
import { body, route } from '@/server/http';

export const POST = route(async (person, request) => decide(person, await body(request)));
