import { keepColumn } from '@/server/bench/keep-column';
import { serve } from '@/server/http';

export const POST = serve('POST /api/bench/look', ({ person, body }) => keepColumn(person, body));
