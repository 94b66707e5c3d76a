import { serve } from '@/server/http';
import { changeStation } from '@/server/stations/service';

export const PATCH = serve('PATCH /api/stations/:id', ({ person, id, body }) => changeStation(person, id, body));
