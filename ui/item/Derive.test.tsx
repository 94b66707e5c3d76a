import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { serve } from '../testing/server';
import { router } from '../testing/setup';
import { Derive } from './Derive';

const worked = { said: 'without its look table', bytes: 12_000, residual: null };

function open() {
  const asked = serve({
    'POST /api/versions/v1/derive/preview': worked,
    'POST /api/versions/v1/derive': { itemId: 'made', versionId: 'v2' },
  });
  draw(<Derive kind="camera-profile" title="Kiln" cameras={[]} versionId="v1" onClose={vi.fn()} />);
  return { asked, user: userEvent.setup() };
}

test.each(['4500000', '-0.05', ''])('a light of %j is told below its field, and nothing is asked', async (kelvin) => {
  const { asked, user } = open();
  const field = screen.getByLabelText('Light, in kelvin');
  await user.clear(field);
  if (kelvin) await user.type(field, kelvin);
  await user.click(screen.getByRole('button', { name: 'Work it out' }));
  expect((await screen.findByRole('alert')).textContent).toMatch(/^The light is/);
  expect(asked).toEqual([]);
});

test('what was typed for another form stands in nobody’s way; it is worked out, then kept', async () => {
  const { asked, user } = open();
  const field = screen.getByLabelText('Light, in kelvin');
  await user.clear(field);
  await user.type(field, '1');
  await user.selectOptions(screen.getByLabelText('As'), 'without its look table');
  await user.click(screen.getByRole('button', { name: 'Work it out' }));
  expect(await screen.findByText(/Nothing is approximated/)).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Save' }));
  await vi.waitFor(() => expect(router.push).toHaveBeenCalledWith('/items/made'));
  expect(asked.map(({ body }) => body)).toMatchObject([{ form: 'without-look' }, { form: 'without-look' }]);
});
