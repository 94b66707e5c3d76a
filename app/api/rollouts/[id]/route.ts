import { Problem } from '@/core/problem';
import { confirmRollout, dropRollout, undoRollout } from '@/server/rollouts/service';
import { body, route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

export const POST = route<C>(async (person, request, { params }) => {
  const { verb } = await body<{ verb: string }>(request);
  const { id } = await params;
  if (verb === 'confirm') {
    await confirmRollout(person, id);
    return { id };
  }
  if (verb === 'undo') return { id: await undoRollout(person, id) };
  if (verb === 'drop') {
    await dropRollout(person, id);
    return { id };
  }
  throw new Problem('input-invalid', 'A rollout can be confirmed, undone or dropped.', 'verb', 'Reload the page.');
});
