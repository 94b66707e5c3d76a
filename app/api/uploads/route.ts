import { beginUpload, unfinishedUploads } from '@/server/packs/service';
import { body, route } from '@/server/web';

export const POST = route(async (person, request) => beginUpload(person, await body(request)));
export const GET = route(async (person) => ({ uploads: await unfinishedUploads(person) }));
