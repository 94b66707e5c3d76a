import { serve } from '@/server/http';
import { leftOutOfPictures } from '@/server/references/service';

export const GET = serve('GET /api/versions/:id/shown', ({ person, id }) => leftOutOfPictures(person, id));
