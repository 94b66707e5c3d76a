import { setCopyTolerance } from '@/server/studio/service';
import { body, route } from '@/server/web';

export const PATCH = route(async (person, request) => setCopyTolerance(person, await body(request)).then(() => ({})));
