import { invite } from '@/server/people/invitations';
import { serve } from '@/server/http';

export const POST = serve('POST /api/people/invitations', ({ person, body }) => invite(person, body));
