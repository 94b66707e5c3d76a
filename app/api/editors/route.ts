import { describeEditor } from '@/server/editors/service';
import { serve } from '@/server/http';

/** A descriptor as its JSON text. */
export const POST = serve('POST /api/editors', async ({ person, request }) =>
  describeEditor(person, await request.text()),
);
