import { setCopyTolerance } from '@/server/studio/service';
import { body, route } from '@/server/http';

export const PATCH = route(async (person, request) => setCopyTolerance(person, await body(request)).then(() => ({})));
