import { listSeen } from '@/server/gear/service';
import { serve } from '@/server/http';

export const POST = serve('POST /api/gear/seen', ({ person }) => listSeen(person));
