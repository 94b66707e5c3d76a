import { cardZip } from '@/server/rollouts/card';
import { route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

/** What a rollout would write onto a card, as a ZIP to unpack onto it by hand. */
export const GET = route<C>(async (person, request, { params }) => {
  const { name, bytes } = await cardZip(
    person,
    (await params).id,
    new URL(request.url).searchParams.get('rollout') ?? '',
  );
  return new Response(new Uint8Array(bytes), {
    headers: { 'content-type': 'application/zip', 'content-disposition': `attachment; filename="${name}"` },
  });
});
