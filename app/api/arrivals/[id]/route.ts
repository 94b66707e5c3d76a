import { acceptArrival, correctEntries, giveUpArrival } from '@/server/arrivals/service';
import { serve } from '@/server/http';

export const POST = serve('POST /api/arrivals/:id', ({ person, id, body }) => acceptArrival(person, id, body));
/** A person says otherwise of some entries. */
export const PATCH = serve('PATCH /api/arrivals/:id', ({ person, id, body }) => correctEntries(person, id, body));
/** Discards an arrival, or gives up one that is still arriving. */
export const DELETE = serve('DELETE /api/arrivals/:id', ({ person, id }) => giveUpArrival(person, id));
