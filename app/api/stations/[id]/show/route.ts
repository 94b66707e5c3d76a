import { Problem } from '@/core/problem';
import { serve } from '@/server/http';
import { showThere, whatWasShown } from '@/server/stations/show-there';

export const POST = serve('POST /api/stations/:id/show', ({ person, id, body }) => showThere(person, id, body));

export const GET = serve('GET /api/stations/:id/show', async ({ person, id }) => {
  const shown = await whatWasShown(person, id);
  if (!shown) throw new Problem('not-found', 'Nothing was to be shown there.', id, 'Ask for a path first.');
  return shown;
});
