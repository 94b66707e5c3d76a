import { addLicence } from '@/server/licences/service';
import { body, route } from '@/server/http';

export const POST = route(async (person, request) => ({ id: await addLicence(person, await body(request)) }));
