import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import { MakeAgain } from './MakeAgain';

test('what is stale leads to the plan by which it is made again', async () => {
  const asked = serve({ 'POST /api/conversions/again': { id: 'plan' } });
  draw(<MakeAgain itemId="one" />);
  await userEvent.setup().click(screen.getByRole('button', { name: 'Make it again' }));
  await vi.waitFor(() => expect(router.push).toHaveBeenCalledWith('/convert/plan'));
  expect(asked.map(({ body }) => body)).toEqual([{ items: ['one'] }]);
});

test('or says why not', async () => {
  serve({
    'POST /api/conversions/again': () =>
      refusal({ code: 'convert-fresh', message: 'None of these is stale.', where: 'items', remedy: 'Choose others.' }),
  });
  draw(<MakeAgain itemId="one" />);
  await userEvent.setup().click(screen.getByRole('button', { name: 'Make it again' }));
  expect(await screen.findByText(/None of these is stale/)).toBeTruthy();
});
