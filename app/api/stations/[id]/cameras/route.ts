import { serve } from '@/server/http';
import { changeCameras } from '@/server/stations/cameras-there';

export const PATCH = serve('PATCH /api/stations/:id/cameras', ({ person, id, body }) =>
  changeCameras(person, id, body),
);
