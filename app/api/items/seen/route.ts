import { serve } from '@/server/http';
import { markSeen } from '@/server/search/fresh';

export const POST = serve('POST /api/items/seen', ({ person }) => markSeen(person));
