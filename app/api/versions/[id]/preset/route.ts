import { serve } from '@/server/http';
import { convertToPreset, previewPreset } from '@/server/versions/preset-forms';

export const GET = serve('GET /api/versions/:id/preset', ({ person, id, query }) =>
  previewPreset(person, id, query.get('to') ?? ''),
);
export const POST = serve('POST /api/versions/:id/preset', ({ person, id, body }) => convertToPreset(person, id, body));
