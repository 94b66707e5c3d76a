import { planFavorites } from '@/server/favorites/service';
import { serve } from '@/server/http';

export const POST = serve('POST /api/favorites/plan', ({ person, body }) => planFavorites(person, body));
