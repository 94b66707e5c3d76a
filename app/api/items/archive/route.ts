import { archiveItems } from '@/server/items/edit';
import { body, route } from '@/server/web';

export const POST = route(async (person, request) => archiveItems(person, await body(request)));
