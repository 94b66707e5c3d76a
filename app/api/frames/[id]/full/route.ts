import { fullSize } from '@/server/frames/full';
import { serve } from '@/server/http';

/** How large a frame is at full size. */
export const GET = serve('GET /api/frames/:id/full', ({ person, id }) => fullSize(person, id));
