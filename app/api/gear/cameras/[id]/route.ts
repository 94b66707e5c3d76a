import { keepGear, removeGear } from '@/server/gear/service';
import { serve } from '@/server/http';

export const PUT = serve('PUT /api/gear/cameras/:id', ({ person, id, body }) => keepGear(person, 'camera', id, body));
export const DELETE = serve('DELETE /api/gear/cameras/:id', ({ person, id }) => removeGear(person, 'camera', id));
