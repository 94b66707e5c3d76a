import { changePerson } from '@/server/people/manage';
import { serve } from '@/server/http';

export const PATCH = serve('PATCH /api/people/:id', ({ person, id, body }) => changePerson(person, id, body));
