import { serve } from '@/server/http';
import { confirmEncodings } from '@/server/items/approval';

export const POST = serve('POST /api/items/encoding', ({ person, body }) => confirmEncodings(person, body));
