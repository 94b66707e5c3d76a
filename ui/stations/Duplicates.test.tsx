import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import { Duplicates, type TwiceShown } from './Duplicates';

const file = (path: string, title: string | null) => ({ path, editor: 'Oxbow 2', ours: title ? { title } : null });
const twice: TwiceShown[] = [
  { how: 'bytes', keep: file('a.cube', 'Kaolin'), others: [file('copy of a.cube', null)] },
  { how: 'effect', keep: file('b.cube', 'Slip'), others: [file('c.cube', 'Slip again'), file('d.cube', 'Third')] },
];

function show(mayPlan = true, answer: unknown = { rollout: 'r1' }) {
  const asked = serve({ 'POST /api/stations/desk/duplicates': answer });
  draw(<Duplicates station="desk" twice={twice} mayPlan={mayPlan} />);
  return { asked, user: userEvent.setup() };
}

test('what lies twice goes by a plan: of one group, or of all', async () => {
  const { asked, user } = show();
  await user.click(screen.getByRole('button', { name: 'Plan to keep b.cube alone' }));
  expect(asked[0]?.body).toEqual({ paths: ['c.cube', 'd.cube'] });
  expect(router.push).toHaveBeenCalledWith('/rollouts/r1');
  await user.click(screen.getByRole('button', { name: 'Plan to take 3 files away' }));
  expect(asked[1]?.body).toEqual({ paths: ['copy of a.cube', 'c.cube', 'd.cube'] });
});

test('it is said what stays, what is theirs, and of what else a file is', () => {
  show();
  const [bytes, effect] = screen.getAllByRole('listitem');
  expect(bytes?.textContent).toContain('in Oxbow 2: the same file');
  expect(bytes?.textContent).toContain('copy of a.cube, theirs');
  expect(effect?.textContent).toContain('two of ours with the same effect');
  expect(effect?.textContent).toContain('c.cube, Slip again');
});

test('who may not plan sees it and has no button; a refusal is told', async () => {
  show(false);
  expect(screen.queryByRole('button')).toBeNull();
});

test('what the server refuses is said', async () => {
  const no = {
    code: 'duplicate-none',
    message: 'This file does not lie there twice any more.',
    where: 'a',
    remedy: 'x',
  };
  const { user } = show(true, () => refusal(no));
  await user.click(screen.getByRole('button', { name: 'Plan to keep a.cube alone' }));
  expect(await screen.findByText(/does not lie there twice any more/)).toBeTruthy();
});
