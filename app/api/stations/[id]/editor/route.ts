import { serve } from '@/server/http';
import { runEditor } from '@/server/stations/launcher';

export const POST = serve('POST /api/stations/:id/editor', ({ person, id, body }) => runEditor(person, id, body));
