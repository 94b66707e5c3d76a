import { serve } from '@/server/http';
import { addShelf } from '@/server/shelves/service';

export const POST = serve('POST /api/shelves', async ({ person, body }) => ({ id: await addShelf(person, body) }));
