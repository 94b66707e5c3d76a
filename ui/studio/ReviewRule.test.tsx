import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import { ReviewRule } from './ReviewRule';

test('a second pair of eyes is asked for by a tick', async () => {
  const asked = serve({ 'PATCH /api/studio/review': {} });
  draw(<ReviewRule asked={false} may />);
  const box = screen.getByRole<HTMLInputElement>('checkbox');
  await userEvent.setup().click(box);
  expect(box.checked).toBe(true);
  await vi.waitFor(() => expect(asked.map(({ body }) => body)).toEqual([{ asked: true }]));
  await vi.waitFor(() => expect(router.refresh).toHaveBeenCalledOnce());
});

test('is seen by all, and set by nobody else', () => {
  draw(<ReviewRule asked may={false} />);
  const box = screen.getByRole<HTMLInputElement>('checkbox');
  expect([box.checked, box.disabled]).toEqual([true, true]);
});

test('what is refused is said, and the tick is gone again', async () => {
  const problem = { code: 'review-alone', message: 'Only one person may.', where: '', remedy: 'Invite another.' };
  serve({ 'PATCH /api/studio/review': refusal(problem) });
  draw(<ReviewRule asked={false} may />);
  await userEvent.setup().click(screen.getByRole('checkbox'));
  expect((await screen.findByRole('alert')).textContent).toContain('Only one person may.');
  expect(screen.getByRole<HTMLInputElement>('checkbox').checked).toBe(false);
});
