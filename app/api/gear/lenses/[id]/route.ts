import { keepGear, removeGear } from '@/server/gear/service';
import { serve } from '@/server/http';

export const PUT = serve('PUT /api/gear/lenses/:id', ({ person, id, body }) => keepGear(person, 'lens', id, body));
export const DELETE = serve('DELETE /api/gear/lenses/:id', ({ person, id }) => removeGear(person, 'lens', id));
