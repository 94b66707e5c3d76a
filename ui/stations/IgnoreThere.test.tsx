import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import { draw } from '../testing/render';
import { serve } from '../testing/server';
import { router } from '../testing/setup';
import { IgnoreThere } from './IgnoreThere';

test('a file is ignored, and told of again', async () => {
  const asked = serve({ 'POST /api/stations/desk/ignored': {} });
  const { rerender } = draw(<IgnoreThere one station="desk" paths={['a.cube']} />);
  const user = userEvent.setup();
  await user.click(screen.getByRole('button', { name: 'Ignore it: a.cube' }));
  rerender(<IgnoreThere one ignored station="desk" paths={['a.cube']} />);
  await user.click(screen.getByRole('button', { name: 'Tell of it again: a.cube' }));
  expect(asked.map(({ body }) => body)).toEqual([
    { verb: 'ignore', paths: ['a.cube'] },
    { verb: 'tell', paths: ['a.cube'] },
  ]);
  expect(router.refresh).toHaveBeenCalledTimes(2);
});

test('all at once', async () => {
  const asked = serve({ 'POST /api/stations/desk/ignored': {} });
  draw(<IgnoreThere station="desk" paths={['a.cube', 'b.cube']} />);
  await userEvent.setup().click(screen.getByRole('button', { name: 'Ignore them all' }));
  expect(asked[0]?.body).toEqual({ verb: 'ignore', paths: ['a.cube', 'b.cube'] });
});
