import { Problem } from '@/core/problem';
import { foretellFor } from '@/server/gear/foretell';
import { route } from '@/server/web';

export const GET = route(async (person, request, { params }: { params: Promise<{ id: string }> }) => {
  const frame = new URL(request.url).searchParams.get('frame') ?? '';
  if (!/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(frame))
    throw new Problem('input-invalid', 'Say for which frame.', 'frame', 'Choose a frame.');
  return foretellFor(person, (await params).id, frame);
});
