import { effectOnItems } from '@/server/editors/reading';
import { serve, textOf } from '@/server/http';

const MOST_BYTES = 4 << 20;

/** A descriptor as its JSON text. */
export const POST = serve('POST /api/editors/effect', async ({ person, request }) =>
  effectOnItems(person, await textOf(request, MOST_BYTES)),
);
