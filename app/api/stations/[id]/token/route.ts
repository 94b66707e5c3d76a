import { serve } from '@/server/http';
import { revokeToken } from '@/server/stations/service';

export const DELETE = serve('DELETE /api/stations/:id/token', ({ person, id }) => revokeToken(person, id));
