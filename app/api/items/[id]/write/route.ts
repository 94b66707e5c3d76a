import { serve } from '@/server/http';
import { writeIntoFile } from '@/server/versions/service';

export const POST = serve('POST /api/items/:id/write', ({ person, id }) => writeIntoFile(person, id));
