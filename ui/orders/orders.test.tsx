import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import { DueThere } from './DueThere';
import { NewOrder, OrderActions } from './OrderActions';

const idOf = (n: number): string => `0190a000-0000-7000-8000-00000000000${n}`;
const [ceramics, desk, room] = [idOf(1), idOf(2), idOf(3)];
const choices = {
  shelves: [{ id: ceramics, title: 'Ceramics' }],
  packs: [],
  groups: ['Kiln'],
  stations: [
    { id: desk, title: 'Glaze desk' },
    { id: room, title: 'Model room' },
  ],
};
const order = {
  id: 'one',
  revision: 3,
  fields: { name: 'Desks', shelves: [], packs: [], ribbons: true, choices: false, groups: [], stations: [desk] },
};

describe('a standing order', () => {
  test('is changed by what is ticked, on the revision that was read', async () => {
    const user = userEvent.setup();
    const asked = serve({ 'PATCH /api/orders/one': {} });
    draw(<OrderActions order={order} choices={choices} due={0} />);
    expect(screen.queryByRole('button', { name: /Plan what is due/ })).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Change Desks' }));
    const dialog = within(await screen.findByRole('dialog', { name: 'Change Desks' }));
    await user.click(dialog.getByLabelText('Model room'));
    await user.click(dialog.getByLabelText('the chosen profiles and looks'));
    await user.click(dialog.getByRole('button', { name: 'Save' }));
    expect(asked[0]?.body).toEqual({
      ...order.fields,
      choices: true,
      stations: [desk, room],
      revision: 3,
    });
  });

  test('that somebody else has changed says so, and what was ticked stays', async () => {
    const user = userEvent.setup();
    const problem = { code: 'edited-meanwhile', message: 'Somebody else has.', where: 'Desks', remedy: 'Reload.' };
    serve({ 'PATCH /api/orders/one': () => refusal(problem) });
    draw(<OrderActions order={order} choices={choices} due={0} />);
    await user.click(screen.getByRole('button', { name: 'Change Desks' }));
    const dialog = within(await screen.findByRole('dialog', { name: 'Change Desks' }));
    await user.click(dialog.getByLabelText('Ceramics'));
    await user.click(dialog.getByRole('button', { name: 'Save' }));
    expect(await dialog.findByText(/Somebody else has\./)).toBeTruthy();
    expect(dialog.getByLabelText<HTMLInputElement>('Ceramics').checked).toBe(true);
  });

  test('without a name or a station is not sent', async () => {
    const user = userEvent.setup();
    const asked = serve({ 'POST /api/orders': { id: 'two' } });
    draw(<NewOrder choices={choices} />);
    await user.click(screen.getByRole('button', { name: 'New standing order' }));
    const dialog = within(await screen.findByRole('dialog', { name: 'New standing order' }));
    await user.click(dialog.getByRole('button', { name: 'Save' }));
    expect(await dialog.findByText('A standing order needs a name.')).toBeTruthy();
    expect(dialog.getByText('Choose at least one station.')).toBeTruthy();
    expect(asked).toEqual([]);
  });

  test('with something due is planned by one button, which leads to the plan', async () => {
    const user = userEvent.setup();
    const asked = serve({ 'POST /api/orders/one/plan': { rollout: 'plan' } });
    draw(<OrderActions order={order} choices={choices} due={4} />);
    const button = screen.getByRole('button', { name: 'Plan what is due by Desks' });
    expect(button.textContent).toBe('Plan 4 files due');
    await user.click(button);
    expect(router.push).toHaveBeenCalledWith('/rollouts/plan');
    expect(asked.map(({ body }) => body)).toEqual([{ station: null }]);
  });
});

test('what is due at a station is told in versions; of many, the first and how many more', () => {
  const due = Array.from({ length: 43 }, (_, n) => ({
    key: String(n),
    item: 'i',
    title: `Look ${n}`,
    editor: 'Oxbow 2',
    is: n ? ('missing' as const) : ('update-due' as const),
    number: 2,
    there: n ? null : 1,
  }));
  draw(<DueThere orders={[{ id: 'one', name: 'Desks', due, inStep: 5 }]} />);
  expect(screen.getByText('version 2 is approved; version 1 lies there')).toBeTruthy();
  expect(screen.getAllByText('version 2 should lie there')).toHaveLength(39);
  expect(screen.getByText('and 3 more')).toBeTruthy();
});

test('what is due at a station is planned there alone, by those who plan', async () => {
  const asked = serve({ 'POST /api/orders/one/plan': { rollout: 'plan' } });
  const due = [
    { key: 'k', item: 'i', title: 'Scrim', editor: 'Oxbow 2', is: 'missing', number: 1, there: null },
  ] as const;
  const orders = [{ id: 'one', name: 'Desks', due, inStep: 0 }];
  const { unmount } = draw(<DueThere orders={orders} station={{ id: desk, name: 'Glaze desk' }} />);
  await userEvent.setup().click(screen.getByRole('button', { name: 'Plan what is due by Desks at Glaze desk' }));
  expect(asked.map(({ body }) => body)).toEqual([{ station: desk }]);
  expect(router.push).toHaveBeenCalledWith('/rollouts/plan');
  unmount();
  draw(<DueThere orders={orders} />);
  expect(screen.queryByRole('button')).toBeNull();
});
