import { keepAnchored } from '@/server/bench/service';
import { body, route } from '@/server/http';

export const POST = route(async (person, request) => keepAnchored(person, await body(request)));
