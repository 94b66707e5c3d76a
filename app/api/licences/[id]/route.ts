import { serve } from '@/server/http';
import { changeLicence } from '@/server/licences/service';

export const PATCH = serve('PATCH /api/licences/:id', ({ person, id, body }) => changeLicence(person, id, body));
