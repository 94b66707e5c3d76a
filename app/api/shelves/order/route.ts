import { serve } from '@/server/http';
import { orderShelves } from '@/server/shelves/service';

export const POST = serve('POST /api/shelves/order', ({ person, body }) => orderShelves(person, body));
