import { serve } from '@/server/http';
import { previewBulk } from '@/server/items/edit';

/** What a change of many items would come to, shown before it is done. */
export const POST = serve('POST /api/items/bulk/preview', async ({ person, body }) => ({
  rows: await previewBulk(person, body),
}));
