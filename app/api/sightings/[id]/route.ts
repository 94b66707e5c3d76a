import { serve } from '@/server/http';
import { giveUpSighting } from '@/server/sightings/service';

export const DELETE = serve('DELETE /api/sightings/:id', ({ person, id }) => giveUpSighting(person, id));
