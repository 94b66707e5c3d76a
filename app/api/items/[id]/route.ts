import { editItem } from '@/server/items/edit';
import { serve } from '@/server/http';

export const PATCH = serve('PATCH /api/items/:id', ({ person, id, body }) => editItem(person, id, body));
