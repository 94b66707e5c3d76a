import { serve } from '@/server/http';
import { addStation } from '@/server/stations/service';

export const POST = serve('POST /api/stations', ({ person, body }) => addStation(person, body));
