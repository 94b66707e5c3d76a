import { serve } from '@/server/http';
import { setIgnored } from '@/server/stations/ignored';

export const POST = serve('POST /api/stations/:id/ignored', ({ person, id, body }) => setIgnored(person, id, body));
