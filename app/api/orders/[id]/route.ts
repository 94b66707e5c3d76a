import { serve } from '@/server/http';
import { changeOrder, removeOrder } from '@/server/orders/service';

export const PATCH = serve('PATCH /api/orders/:id', ({ person, id, body }) => changeOrder(person, id, body));
export const DELETE = serve('DELETE /api/orders/:id', ({ person, id }) => removeOrder(person, id));
