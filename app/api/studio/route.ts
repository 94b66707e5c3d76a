import { serve } from '@/server/http';
import { setCopyTolerance } from '@/server/studio/service';

export const PATCH = serve('PATCH /api/studio', ({ person, body }) => setCopyTolerance(person, body));
