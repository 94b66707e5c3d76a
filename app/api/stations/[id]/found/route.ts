import { serve } from '@/server/http';
import { takeInFound } from '@/server/stations/station-arrival';

/** Takes in what lies at a station and is not ours. */
export const POST = serve('POST /api/stations/:id/found', ({ person, id }) => takeInFound(person, id));
