import { serve } from '@/server/http';
import { eventsSince } from '@/server/live/service';

/** What happened between the making of a page and its following along. */
export const GET = serve('GET /api/events', async ({ person, query }) => ({
  events: await eventsSince(person, Number(query.get('after')) || 0),
}));
