import { clearRibbons, orderRibbons } from '@/server/ribbons/service';
import { body, route } from '@/server/http';

export const POST = route(async (person, request) => orderRibbons(person, await body(request)).then(() => ({})));
export const DELETE = route(async (person, request) => clearRibbons(person, await body(request)));
