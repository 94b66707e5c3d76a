import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import { NoteByHand } from './NoteByHand';
import { SheetOfEditor } from './SheetOfEditor';

test('a sheet has its steps in order, paths to copy, and boxes to tick', async () => {
  const user = userEvent.setup();
  draw(
    <SheetOfEditor
      sheet={{
        title: 'Marlstone 4',
        before: 'Quit Marlstone 4, if it runs.',
        folders: [
          {
            folder: '~/Looks',
            reach: 'Paste the path.',
            put: [
              { name: 'Slate.mlook', over: true },
              { name: 'Gypsum.mlook', over: false },
            ],
            remove: ['Old.mlook'],
          },
        ],
        after: ['Start Marlstone 4.'],
        checks: ['Marlstone 4 lists Slate.'],
        cannot: ['Kiln: only an agent writes it'],
        notes: 'It is slow to start.',
      }}
    />,
  );
  const [steps] = screen.getAllByRole('list');
  const [before, folder, after] = [...(steps?.children ?? [])].map(({ textContent }) => textContent);
  expect(before).toBe('Quit Marlstone 4, if it runs.');
  expect(folder).toContain(
    'Copy into it:Slate.mlook in the place of the one that is thereGypsum.mlookTake out of it:Old',
  );
  expect(after).toBe('Start Marlstone 4.');
  expect(
    within(screen.getByRole('region', { name: 'Marlstone 4' })).getByText('Kiln: only an agent writes it.'),
  ).toBeDefined();
  const box = screen.getByLabelText<HTMLInputElement>('Marlstone 4 lists Slate.');
  await user.click(box);
  expect(box.checked).toBe(true);
});

test('what was done by hand is noted, or it is said why not', async () => {
  const user = userEvent.setup();
  const problem = { code: 'agent-there', message: 'An agent is at Desk.', where: 'Desk', remedy: 'Wait.' };
  let refuses = true;
  const asked = serve({
    'POST /api/rollouts/r/by-hand': () => (refuses ? refusal(problem) : { done: 2 }),
  });
  draw(<NoteByHand rollout="r" station="s" files={2} />);
  const button = screen.getByRole('button', { name: 'Note 2 files as done by hand' });
  await user.click(button);
  expect(await screen.findByText(/An agent is at Desk/)).toBeDefined();
  refuses = false;
  await user.click(button);
  expect(asked.map(({ body }) => body)).toEqual([{ station: 's' }, { station: 's' }]);
  expect(router.refresh).toHaveBeenCalledTimes(1);
});
