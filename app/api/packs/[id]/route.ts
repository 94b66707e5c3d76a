import { serve } from '@/server/http';
import { changePack } from '@/server/packs/service';

export const PATCH = serve('PATCH /api/packs/:id', async ({ person, id, body }) => {
  const { changed } = await changePack(person, id, body);
  return { changed };
});
