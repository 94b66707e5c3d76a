import { makeMatch } from '@/server/camera-match/service';
import { serve } from '@/server/http';

export const POST = serve('POST /api/camera-match', ({ person, body }) => makeMatch(person, body));
