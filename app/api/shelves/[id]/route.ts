import { serve } from '@/server/http';
import { changeShelf, removeShelf } from '@/server/shelves/service';

export const PATCH = serve('PATCH /api/shelves/:id', ({ person, id, body }) => changeShelf(person, id, body));
export const DELETE = serve('DELETE /api/shelves/:id', ({ person, id }) => removeShelf(person, id));
