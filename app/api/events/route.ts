import { since } from '@/server/live/service';
import { serve } from '@/server/http';

/** What happened between the making of a page and its following along. */
export const GET = serve('GET /api/events', ({ person, query }) => since(person, query.get('since') ?? ''));
