import { serve } from '@/server/http';
import { setReview } from '@/server/studio/review';

export const PATCH = serve('PATCH /api/studio/review', ({ person, body }) => setReview(person, body));
