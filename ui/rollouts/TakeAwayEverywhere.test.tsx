import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import { useAction } from '../kit/action';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import { TakeAwayEverywhere } from './TakeAwayEverywhere';

function Screen() {
  const action = useAction();
  return (
    <>
      <TakeAwayEverywhere items={['ash', 'clay']} title="Take Glazes away" action={action} />
      {action.problem && <p role="alert">{action.problem.message}</p>}
    </>
  );
}

test('a plan is made, and looked at before anything goes', async () => {
  const asked = serve({ 'POST /api/rollouts/removal': { rollout: 'r1' } });
  draw(<Screen />);
  await userEvent.setup().click(screen.getByRole('button', { name: 'Take away' }));
  expect(asked.map(({ body }) => body)).toEqual([{ items: ['ash', 'clay'], title: 'Take Glazes away' }]);
  expect(router.push).toHaveBeenCalledWith('/rollouts/r1');
});

test('that nothing lies anywhere is said', async () => {
  const problem = { code: 'x', message: 'None of this lies at any station.', where: '', remedy: '' };
  serve({ 'POST /api/rollouts/removal': () => refusal(problem) });
  draw(<Screen />);
  await userEvent.setup().click(screen.getByRole('button', { name: 'Take away' }));
  expect((await screen.findByRole('alert')).textContent).toContain('None of this lies');
});
