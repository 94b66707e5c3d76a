import { ribbonsFromFavorites } from '@/server/favorites/service';
import { serve } from '@/server/http';

export const POST = serve('POST /api/favorites/ribbons', ({ person, body }) => ribbonsFromFavorites(person, body));
