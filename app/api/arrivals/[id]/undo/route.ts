import { undoArrival } from '@/server/arrivals/service';
import { serve } from '@/server/http';

/** Puts an accepted arrival back. */
export const POST = serve('POST /api/arrivals/:id/undo', ({ person, id }) => undoArrival(person, id));
