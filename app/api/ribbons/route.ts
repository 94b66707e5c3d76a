import { serve } from '@/server/http';
import { clearRibbons, orderRibbons } from '@/server/ribbons/service';

export const POST = serve('POST /api/ribbons', ({ person, body }) => orderRibbons(person, body));
export const DELETE = serve('DELETE /api/ribbons', ({ person, body }) => clearRibbons(person, body));
