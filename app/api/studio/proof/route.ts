import { serve } from '@/server/http';
import { setProofLimits } from '@/server/studio/service';

export const PATCH = serve('PATCH /api/studio/proof', ({ person, body }) => setProofLimits(person, body));
