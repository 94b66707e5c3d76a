import { serve } from '@/server/http';
import { approveItems } from '@/server/items/approval';

export const POST = serve('POST /api/items/approve', ({ person, body }) => approveItems(person, body));
