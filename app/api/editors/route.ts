import { proposeText } from '@/server/editors/proposals';
import { serve, textOf } from '@/server/http';

const MOST_BYTES = 4 << 20;

/** A descriptor as its JSON text. */
export const POST = serve('POST /api/editors', async ({ person, request }) =>
  proposeText(person, await textOf(request, MOST_BYTES)),
);
