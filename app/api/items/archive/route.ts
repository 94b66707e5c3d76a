import { archiveItems } from '@/server/items/edit';
import { body, route } from '@/server/http';

export const POST = route(async (person, request) => archiveItems(person, await body(request)));
