import { saveBench } from '@/server/bench/service';
import { serve } from '@/server/http';

export const POST = serve('POST /api/bench/saved', ({ person, body }) => saveBench(person, null, body));
