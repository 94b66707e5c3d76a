import { serve } from '@/server/http';
import { headingsOfShelf, orderByHeadings } from '@/server/shelves/service';

export const GET = serve('GET /api/shelves/:id/headings', ({ person, id }) => headingsOfShelf(person, id));
export const POST = serve('POST /api/shelves/:id/headings', ({ person, id }) => orderByHeadings(person, id));
