import { serve } from '@/server/http';
import { referringPresets, renameInPresets } from '@/server/references/rename';

export const GET = serve('GET /api/items/:id/referring', async ({ person, id }) => ({
  presets: await referringPresets(person, id),
}));
export const POST = serve('POST /api/items/:id/referring', ({ person, id }) => renameInPresets(person, id));
