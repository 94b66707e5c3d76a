import { decideProposal } from '@/server/editors/proposals';
import { serve } from '@/server/http';

export const POST = serve('POST /api/proposals/:id', ({ person, id, body }) => decideProposal(person, id, body));
