import { serve } from '@/server/http';
import { takeRule } from '@/server/opening/service';

export const POST = serve('POST /api/opening/take', ({ person, body }) => takeRule(person, body));
