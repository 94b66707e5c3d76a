import { signOutPerson } from '@/server/people/manage';
import { serve } from '@/server/http';

export const DELETE = serve('DELETE /api/people/:id/sessions', ({ person, id }) => signOutPerson(person, id));
