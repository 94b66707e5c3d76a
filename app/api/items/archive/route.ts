import { serve } from '@/server/http';
import { archiveItems } from '@/server/items/edit';

export const POST = serve('POST /api/items/archive', ({ person, body }) => archiveItems(person, body));
