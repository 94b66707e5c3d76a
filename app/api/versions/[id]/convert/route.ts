import { serve } from '@/server/http';
import { convertPreset, previewConversion } from '@/server/versions/convert';

export const GET = serve('GET /api/versions/:id/convert', ({ person, id, query }) => {
  const size = Math.min(129, Math.max(2, Number(query.get('size')) || 33));
  const above = Number(query.get('above')) || null;
  return previewConversion(person, id, size, query.get('settings')?.split(',').filter(Boolean), above);
});
export const POST = serve('POST /api/versions/:id/convert', ({ person, id, body }) =>
  convertPreset(person, { ...body, versionId: id }),
);
