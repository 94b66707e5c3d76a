import { eventsSince } from '@/server/live/service';
import { route } from '@/server/http';

/** What happened between the making of a page and its following along. */
export const GET = route(async (person, request) => ({
  events: await eventsSince(person, Number(new URL(request.url).searchParams.get('after')) || 0),
}));
