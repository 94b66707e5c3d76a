import { serve } from '@/server/http';
import { presetLanguages } from '@/server/versions/preset-forms';

export const GET = serve('GET /api/preset-languages', async ({ person }) => ({
  languages: await presetLanguages(person),
}));
