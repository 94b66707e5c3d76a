import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { serve } from '../testing/server';
import { router } from '../testing/setup';
import { ReviewRule } from './ReviewRule';

test('a second pair of eyes is asked for by a tick', async () => {
  const asked = serve({ 'PATCH /api/studio/review': {} });
  draw(<ReviewRule asked={false} may />);
  await userEvent.setup().click(screen.getByRole('checkbox'));
  await vi.waitFor(() => expect(asked.map(({ body }) => body)).toEqual([{ asked: true }]));
  await vi.waitFor(() => expect(router.refresh).toHaveBeenCalledOnce());
});

test('is seen by all, and set by nobody else', () => {
  draw(<ReviewRule asked may={false} />);
  const box = screen.getByRole<HTMLInputElement>('checkbox');
  expect([box.checked, box.disabled]).toEqual([true, true]);
});
