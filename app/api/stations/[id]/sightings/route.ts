import { serve } from '@/server/http';
import { askForPictures } from '@/server/sightings/service';

export const POST = serve('POST /api/stations/:id/sightings', ({ person, id, body }) =>
  askForPictures(person, id, body),
);
