import { decide } from '@/server/bench/decide';
import { serve } from '@/server/http';

export const POST = serve('POST /api/bench/verdict', ({ person, body }) => decide(person, body));
