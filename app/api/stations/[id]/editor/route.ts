import { runEditor } from '@/server/stations/launcher';
import { Problem } from '@/core/problem';
import { body, route } from '@/server/http';

type C = { params: Promise<{ id: string }> };

export const POST = route<C>(async (person, request, { params }) => {
  const { editor, verb } = await body<{ editor: string; verb: string }>(request);
  if (verb !== 'launch' && verb !== 'quit')
    throw new Problem('input-invalid', 'An editor can be launched or quit.', 'verb', 'Reload the page.');
  await runEditor(person, (await params).id, String(editor), verb);
});
