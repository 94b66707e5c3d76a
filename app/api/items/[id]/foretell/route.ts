import { isUuid } from '@/core/uuid';
import { Problem } from '@/core/problem';
import { foretellFor } from '@/server/gear/foretell';
import { route } from '@/server/http';

export const GET = route(async (person, request, { params }: { params: Promise<{ id: string }> }) => {
  const frame = new URL(request.url).searchParams.get('frame') ?? '';
  if (!isUuid(frame)) throw new Problem('input-invalid', 'Say for which frame.', 'frame', 'Choose a frame.');
  return foretellFor(person, (await params).id, frame);
});
