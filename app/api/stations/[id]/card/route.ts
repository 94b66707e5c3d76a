import { serve } from '@/server/http';
import { addCard } from '@/server/stations/service';

export const POST = serve('POST /api/stations/:id/card', ({ person, id, body }) => addCard(person, id, body));
