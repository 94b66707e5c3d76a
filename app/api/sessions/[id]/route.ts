import { endSession } from '@/server/people/sessions';
import { serve } from '@/server/http';

export const DELETE = serve('DELETE /api/sessions/:id', ({ person, id }) => endSession(person, id));
