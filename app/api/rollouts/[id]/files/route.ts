import { route } from '@/server/http';
import { filesZip } from '@/server/rollouts/sheet';

type C = { params: Promise<{ id: string }> };

/** What a rollout puts at a station, as a ZIP to unpack there by hand. */
export const GET = route<C>(async (person, request, { params }) => {
  const station = new URL(request.url).searchParams.get('station') ?? '';
  const { name, bytes } = await filesZip(person, (await params).id, station);
  return new Response(new Uint8Array(bytes), {
    headers: { 'content-type': 'application/zip', 'content-disposition': `attachment; filename="${name}"` },
  });
});
