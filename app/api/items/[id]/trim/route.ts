import { forgetTrim } from '@/server/bench/kept-trim';
import { serve } from '@/server/http';

export const DELETE = serve('DELETE /api/items/:id/trim', ({ person, id }) => forgetTrim(person, id));
