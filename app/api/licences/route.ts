import { serve } from '@/server/http';
import { addLicence } from '@/server/licences/service';

export const POST = serve('POST /api/licences', async ({ person, body }) => ({ id: await addLicence(person, body) }));
