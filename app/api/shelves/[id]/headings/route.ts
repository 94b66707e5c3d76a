import { serve } from '@/server/http';
import { orderByHeadings } from '@/server/shelves/service';

export const POST = serve('POST /api/shelves/:id/headings', ({ person, id }) => orderByHeadings(person, id));
