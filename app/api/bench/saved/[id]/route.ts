import { removeBench, saveBench } from '@/server/bench/service';
import { serve } from '@/server/http';

export const PATCH = serve('PATCH /api/bench/saved/:id', ({ person, id, body }) => saveBench(person, id, body));
export const DELETE = serve('DELETE /api/bench/saved/:id', ({ person, id }) => removeBench(person, id));
