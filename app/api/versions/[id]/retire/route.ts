import { serve } from '@/server/http';
import { retire } from '@/server/versions/service';

export const POST = serve('POST /api/versions/:id/retire', ({ person, id }) => retire(person, id));
