import { beginArrival, unfinishedUploads } from '@/server/arrivals/service';
import { body, route } from '@/server/http';

export const POST = route(async (person, request) => beginArrival(person, await body(request, 8 << 20)));
export const GET = route(async (person) => ({ uploads: await unfinishedUploads(person) }));
