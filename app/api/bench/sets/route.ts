import { saveSet } from '@/server/bench/service';
import { serve } from '@/server/http';

export const POST = serve('POST /api/bench/sets', ({ person, body }) => saveSet(person, body));
