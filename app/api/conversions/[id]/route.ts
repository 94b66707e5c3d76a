import { changeConversion, moveConversion } from '@/server/conversions/service';
import { serve } from '@/server/http';

export const PATCH = serve('PATCH /api/conversions/:id', ({ person, id, body }) => changeConversion(person, id, body));
export const POST = serve('POST /api/conversions/:id', ({ person, id, body }) => moveConversion(person, id, body));
