import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import { draw } from '../testing/render';
import { serve } from '../testing/server';
import { router } from '../testing/setup';
import { KeptStudios } from './KeptStudios';

test('a studio that a restore put aside is dropped after a word of what it is', async () => {
  const asked = serve({ 'DELETE /api/kept/etagere_before_1a2b': {} });
  draw(<KeptStudios kept={[{ name: 'etagere_before_1a2b', bytes: 105_921_895 }]} />);
  const user = userEvent.setup();
  await user.click(screen.getByRole('button', { name: 'Delete etagere_before_1a2b' }));
  expect(asked).toEqual([]);
  expect((await screen.findByRole('dialog')).textContent).toContain('etagere_before_1a2b, 105.9 MB');
  await user.click(screen.getByRole('button', { name: 'Delete it' }));
  expect(asked).toHaveLength(1);
  expect(router.refresh).toHaveBeenCalledOnce();
});

test('where none was, nothing is shown', () => {
  const { container } = draw(<KeptStudios kept={[]} />);
  expect(container.textContent).toBe('');
});
