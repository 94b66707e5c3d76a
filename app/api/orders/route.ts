import { serve } from '@/server/http';
import { addOrder } from '@/server/orders/service';

export const POST = serve('POST /api/orders', ({ person, body }) => addOrder(person, body));
