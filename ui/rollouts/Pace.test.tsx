import { fireEvent, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { Pace } from './Pace';
import { RolloutActions } from './RolloutActions';

const id = '0190a000-0000-7000-8000-000000000001';
const first = { name: 'Desk', waiting: 0, listed: 2, there: 2, goesOn: false };

test('the rest is let go once the first station has all, and it is said whether that is listed there', async () => {
  const user = userEvent.setup();
  const asked = serve({ [`POST /api/rollouts/${id}`]: { id } });
  const { rerender } = draw(<Pace id={id} paused={false} begins={null} waiting={5} first={{ ...first, waiting: 1 }} />);
  expect(screen.getByText('It goes to Desk first, where 1 file waits still.')).toBeDefined();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Let the rest go' }).disabled).toBe(true);
  rerender(<Pace id={id} paused={false} begins={null} waiting={4} first={{ ...first, listed: 1 }} />);
  expect(screen.getByText(/where 1 of 2 are listed so far/)).toBeDefined();
  rerender(<Pace id={id} paused={false} begins={null} waiting={4} first={first} />);
  expect(screen.getByText(/all of it is listed there/)).toBeDefined();
  await user.click(screen.getByRole('button', { name: 'Let the rest go' }));
  expect(asked[0]?.body).toEqual({ verb: 'release', first: null, goesOn: false, at: null });
});

test('it is halted, gone on with and stopped; a refusal is told', async () => {
  const user = userEvent.setup();
  const problem = { code: 'rollout-settled', message: 'It is halted already.', where: 'r', remedy: 'Reload.' };
  const asked = serve({ [`POST /api/rollouts/${id}`]: () => refusal(problem) });
  const { rerender } = draw(<Pace id={id} paused={false} begins={null} waiting={1} first={null} />);
  expect(screen.getByText('1 file waits for the agents.')).toBeDefined();
  await user.click(screen.getByRole('button', { name: 'Halt' }));
  expect(await screen.findByText(/It is halted already/)).toBeDefined();
  rerender(<Pace id={id} paused begins={null} waiting={3} first={null} />);
  expect(screen.getByText('Halted: 3 files wait.')).toBeDefined();
  await user.click(screen.getByRole('button', { name: 'Go on' }));
  await user.click(screen.getByRole('button', { name: 'Stop here' }));
  expect(asked.map(({ body }) => (body as { verb: string }).verb)).toEqual(['pause', 'resume', 'stop']);
});

test('a plan for several stations can go to one of them first', async () => {
  const user = userEvent.setup();
  const asked = serve({ [`POST /api/rollouts/${id}`]: { id } });
  const places = [
    { id: 's1', name: 'Desk' },
    { id: 's2', name: 'Room' },
  ];
  const plan = {
    id,
    status: 'planned',
    files: 2,
    stations: 2,
    isUndo: false,
    removes: false,
    again: true,
    review: false,
  };
  draw(<RolloutActions {...plan} places={places} may />);
  await user.selectOptions(screen.getByLabelText('To which station it goes first'), 'Room first');
  await user.click(screen.getByRole('button', { name: /^Confirm/ }));
  expect(asked[0]?.body).toEqual({ verb: 'confirm', first: 's2', goesOn: false, at: null });
  await user.selectOptions(screen.getByLabelText('To which station it goes first'), 'Desk first, then by itself');
  await user.click(screen.getByRole('button', { name: /^Confirm/ }));
  expect(asked[1]?.body).toEqual({ verb: 'confirm', first: 's1', goesOn: true, at: null });
});

test('that the rest goes by itself is said, and by when', () => {
  const { rerender } = draw(
    <Pace id={id} paused={false} begins={null} waiting={4} first={{ ...first, listed: 1, goesOn: true }} />,
  );
  expect(screen.getByText(/1 of 2 are listed so far\. The rest goes by itself once all are\./)).toBeDefined();
  rerender(<Pace id={id} paused={false} begins={null} waiting={4} first={{ ...first, goesOn: true }} />);
  expect(screen.getByText(/The rest goes in a moment\./)).toBeDefined();
});

test('one that is to begin later says when, and can begin now', async () => {
  const user = userEvent.setup();
  const asked = serve({ [`POST /api/rollouts/${id}`]: { id } });
  const begins = new Date(2031, 4, 6, 20, 30).toISOString();
  draw(<Pace id={id} paused={false} begins={begins} waiting={2} first={first} />);
  expect(screen.getByText(/nothing is written before/).textContent).toContain('6 May 2031, 20:30');
  expect(screen.queryByRole('button', { name: 'Let the rest go' })).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Begin now' }));
  expect(asked[0]?.body).toMatchObject({ verb: 'begin' });
});

test('a plan is confirmed for a time, in the clock of whoever confirms it', async () => {
  const user = userEvent.setup();
  const asked = serve({ [`POST /api/rollouts/${id}`]: { id } });
  const plan = {
    id,
    status: 'planned',
    files: 2,
    stations: 1,
    isUndo: false,
    removes: false,
    again: true,
    review: false,
  };
  draw(<RolloutActions {...plan} places={[]} may />);
  fireEvent.change(screen.getByLabelText('When it begins, if not at once'), { target: { value: '2031-05-06T20:30' } });
  await user.click(screen.getByRole('button', { name: /^Confirm/ }));
  expect(asked[0]?.body).toMatchObject({ verb: 'confirm', at: new Date(2031, 4, 6, 20, 30).toISOString() });
});
