import { serve } from '@/server/http';
import { planRemovalOfItems } from '@/server/rollouts/removal';

export const POST = serve('POST /api/rollouts/removal', ({ person, body }) => planRemovalOfItems(person, body));
