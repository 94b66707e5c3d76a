import { must } from '@/core/must';
import { convertPreset, previewConversion } from '@/server/versions/convert';
import { body, route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

export const GET = route<C>(async (person, request, { params }) => {
  const query = new URL(request.url).searchParams;
  const size = Math.min(129, Math.max(2, Number(query.get('size')) || 33));
  return previewConversion(
    person,
    (await params).id,
    size,
    query.has('settings') ? must(query.get('settings')).split(',').filter(Boolean) : undefined,
  );
});
export const POST = route<C>(async (person, request, { params }) =>
  convertPreset(person, { ...(await body<object>(request)), versionId: (await params).id }),
);
