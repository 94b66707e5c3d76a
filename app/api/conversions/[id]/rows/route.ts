import { changeRows } from '@/server/conversions/service';
import { serve } from '@/server/http';

export const PATCH = serve('PATCH /api/conversions/:id/rows', ({ person, id, body }) => changeRows(person, id, body));
