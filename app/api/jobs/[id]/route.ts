import { cancelJob, jobFor } from '@/server/jobs/service';
import { route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

export const GET = route<C>(async (person, _r, { params }) => {
  const { id, title, status, progress, note, error } = await jobFor(person, (await params).id);
  return { id, title, status, progress, note, error };
});
export const DELETE = route<C>(async (person, _r, { params }) => cancelJob(person, (await params).id).then(() => ({})));
