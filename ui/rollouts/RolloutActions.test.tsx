import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import { RolloutActions } from './RolloutActions';

function show(part: Partial<Parameters<typeof RolloutActions>[0]>, answer: unknown = { id: 'one' }) {
  const asked = serve({ 'POST /api/rollouts/one': answer });
  draw(
    <RolloutActions
      id="one"
      status="planned"
      files={6}
      stations={1}
      isUndo={false}
      removes={false}
      again
      places={[]}
      review={false}
      may
      {...part}
    />,
  );
  return { asked, user: userEvent.setup() };
}
const buttons = () => screen.queryAllByRole('button').map((button) => button.textContent);

describe('what can be done with a rollout', () => {
  test('follows from how it stands', () => {
    show({ status: 'planning' });
    expect(buttons()).toEqual(['Drop the plan']);
  });
  test.each([
    ['planned', ['Drop the plan', 'Plan it again', 'Confirm: write 6 files on 1 station']],
    ['done', ['Undo the rollout']],
    ['undone', []],
  ])('%s', (status, names) => {
    show({ status });
    expect(buttons()).toEqual(names);
  });
  test('what takes files away says so, and is planned anew at its station alone', () => {
    show({ removes: true, again: false });
    expect(buttons()).toEqual(['Drop the plan', 'Confirm: take away 6 files on 1 station']);
  });
  test('an undo is not undone, and who may not do it is offered nothing', () => {
    show({ status: 'done', isUndo: true });
    show({ may: false });
    expect(buttons()).toEqual([]);
  });

  test('confirming keeps the page, dropping leaves it', async () => {
    const { asked, user } = show({});
    await user.click(screen.getByRole('button', { name: /^Confirm/ }));
    expect(router.refresh).toHaveBeenCalledOnce();
    await user.click(screen.getByRole('button', { name: 'Drop the plan' }));
    expect(router.push).toHaveBeenCalledWith('/rollouts');
    expect(asked.map(({ body }) => body)).toEqual([
      { verb: 'confirm', first: null, goesOn: false, at: null },
      { verb: 'drop', first: null, goesOn: false, at: null },
    ]);
  });

  test('undoing says first what it takes back, and leads to its opposite', async () => {
    const { asked, user } = show({ status: 'done', files: 2 }, { id: 'undo' });
    await user.click(screen.getByRole('button', { name: 'Undo the rollout' }));
    expect(asked).toEqual([]);
    await user.click(await screen.findByRole('button', { name: 'Take back 2 files on 1 station' }));
    await vi.waitFor(() => expect(router.push).toHaveBeenCalledWith('/rollouts/undo'));
  });

  test('what stands against it is said', async () => {
    const problem = { code: 'x', message: 'Some stations have not reported.', where: '', remedy: 'Wait for them.' };
    const { user } = show({}, () => refusal(problem));
    await user.click(screen.getByRole('button', { name: /^Confirm/ }));
    expect((await screen.findByRole('alert')).textContent).toContain('Wait for them.');
  });
});

test('what another person has to confirm says so, and can be dropped and planned again', () => {
  show({
    review: true,
    places: [
      { id: 'a', name: 'Kiln' },
      { id: 'b', name: 'Loft' },
    ],
  });
  expect(screen.getByRole('status').textContent).toBe('Another person has to confirm this');
  expect(screen.getAllByRole('button').map((button) => button.textContent)).toEqual(['Drop the plan', 'Plan it again']);
  expect(screen.queryByRole('combobox')).toBeNull();
});
