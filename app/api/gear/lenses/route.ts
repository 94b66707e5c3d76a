import { keepGear } from '@/server/gear/service';
import { serve } from '@/server/http';

export const POST = serve('POST /api/gear/lenses', ({ person, body }) => keepGear(person, 'lens', null, body));
