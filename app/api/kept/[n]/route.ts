import { dropKeptFor } from '@/server/backup/service';
import { serve } from '@/server/http';

export const DELETE = serve('DELETE /api/kept/:n', ({ person, id }) => dropKeptFor(person, id));
