import { keepGear } from '@/server/gear/service';
import { serve } from '@/server/http';

export const POST = serve('POST /api/gear/cameras', ({ person, body }) => keepGear(person, 'camera', null, body));
