import { addLicence } from '@/server/licences/service';
import { body, route } from '@/server/web';

export const POST = route(async (person, request) => ({ id: await addLicence(person, await body(request)) }));
