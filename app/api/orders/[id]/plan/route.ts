import { serve } from '@/server/http';
import { planOrder } from '@/server/orders/service';

export const POST = serve('POST /api/orders/:id/plan', ({ person, id, body }) => planOrder(person, id, body));
