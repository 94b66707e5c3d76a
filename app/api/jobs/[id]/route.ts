import { serve } from '@/server/http';
import { cancelJob, jobFor } from '@/server/jobs/service';

export const GET = serve('GET /api/jobs/:id', async ({ person, id }) => {
  const { title, status, progress, note, error } = await jobFor(person, id);
  return { id, title, status, progress, note, error };
});
export const DELETE = serve('DELETE /api/jobs/:id', ({ person, id }) => cancelJob(person, id));
