import { addExport, MOST_BYTES } from '@/server/frames/exports';
import { bytesOf, route } from '@/server/http';

/** An editor's export of the frame as the body, its label in ?label. */
export const POST = route<{ params: Promise<{ id: string }> }>(async (person, request, { params }) => {
  return addExport(
    person,
    (await params).id,
    new URL(request.url).searchParams.get('label') ?? '',
    await bytesOf(request, MOST_BYTES),
  );
});
