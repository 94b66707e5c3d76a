import { beginArrival, unfinishedUploads } from '@/server/arrivals/service';
import { serve } from '@/server/http';

export const POST = serve('POST /api/uploads', ({ person, body }) => beginArrival(person, body), { most: 8 << 20 });
export const GET = serve('GET /api/uploads', async ({ person }) => ({ uploads: await unfinishedUploads(person) }));
