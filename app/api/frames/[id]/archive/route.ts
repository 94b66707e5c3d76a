import { archiveFrame } from '@/server/frames/care';
import { serve } from '@/server/http';

export const POST = serve('POST /api/frames/:id/archive', ({ person, id, body }) => archiveFrame(person, id, body));
