import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import { LeaveOutStation, LeaveOutStep } from './LeaveOut';

const address = 'POST /api/rollouts/one/leave';

test('what waits at a station is left out after a word of what that means', async () => {
  const asked = serve({ [address]: { left: 3 } });
  const user = userEvent.setup();
  draw(<LeaveOutStation rollout="one" station={{ id: 'desk', name: 'Glaze desk' }} waiting={3} />);
  await user.click(screen.getByRole('button', { name: 'Leave out what waits' }));
  expect(asked).toEqual([]);
  expect((await screen.findByRole('dialog', { name: 'Leave Glaze desk out?' })).textContent).toContain('3 files');
  await user.click(screen.getByRole('button', { name: 'Leave out 3 files' }));
  expect(asked.map(({ body }) => body)).toEqual([{ station: 'desk' }]);
  expect(router.refresh).toHaveBeenCalledOnce();
});

test('one step is left out by itself; what stands against it is said', async () => {
  const problem = { code: 'x', message: 'Nothing of that waits any more.', where: '', remedy: 'Reload the page.' };
  const asked = serve({ [address]: () => refusal(problem) });
  draw(<LeaveOutStep rollout="one" station="desk" step={7} path="Oxbow/Looks/a.cube" />);
  await userEvent.setup().click(screen.getByRole('button', { name: 'Leave out Oxbow/Looks/a.cube' }));
  expect(asked.map(({ body }) => body)).toEqual([{ station: 'desk', steps: [7] }]);
  expect((await screen.findByRole('alert')).textContent).toContain('Reload the page.');
});
