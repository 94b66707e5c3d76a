import { serve } from '@/server/http';
import { hideFirstSteps } from '@/server/studio/first-steps';

export const PATCH = serve('PATCH /api/studio/first-steps', ({ person, body }) => hideFirstSteps(person, body));
