import { newLink } from '@/server/people/invitations';
import { serve } from '@/server/http';

export const POST = serve('POST /api/people/:id/link', ({ person, id }) => newLink(person, id));
