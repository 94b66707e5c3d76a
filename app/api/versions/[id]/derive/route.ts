import { derive, previewDerived } from '@/server/versions/derive';
import { body, route } from '@/server/http';

/** Another form of a version; with `?preview`, only what would be made, and its error. */
export const POST = route<{ params: Promise<{ id: string }> }>(async (person, request, { params }) =>
  (new URL(request.url).searchParams.has('preview') ? previewDerived : derive)(
    person,
    (await params).id,
    await body(request),
  ),
);
