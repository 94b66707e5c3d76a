import { serve } from '@/server/http';
import { takeApprovalBack } from '@/server/items/approval';

export const POST = serve('POST /api/items/approve/undo', ({ person, body }) => takeApprovalBack(person, body));
