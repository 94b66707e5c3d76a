import { describeEditor } from '@/server/editors/service';
import { serve, textOf } from '@/server/http';

const MOST_BYTES = 4 << 20;

/** A descriptor as its JSON text. */
export const POST = serve('POST /api/editors', async ({ person, request }) =>
  describeEditor(person, await textOf(request, MOST_BYTES)),
);
