import { keepAnchored } from '@/server/bench/service';
import { serve } from '@/server/http';

export const POST = serve('POST /api/bench/anchor', ({ person, body }) => keepAnchored(person, body));
