import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import { Carry } from './Carry';

const station = { id: 'desk', name: 'Fly gallery', system: 'linux' as const };

test('what waits is made a file, and the line that carries it out names that file', async () => {
  URL.createObjectURL = vi.fn(() => 'blob:made');
  URL.revokeObjectURL = vi.fn();
  const asked = serve({ 'POST /api/stations/desk/carried': {} });
  draw(<Carry station={station} enrolled={false} carried={[]} />);
  const user = userEvent.setup();
  await user.click(screen.getByRole('button', { name: 'Carry by hand' }));
  expect(screen.getByRole('dialog').textContent).toContain('the file enrols it');
  expect(screen.getByLabelText('Carry it out').textContent).toBe(
    'unzip -o Fly-gallery.carried.zip etagere-agent.mjs && node etagere-agent.mjs carry Fly-gallery.carried.zip',
  );
  await user.click(screen.getByRole('button', { name: 'Make the file' }));
  expect(asked.map(({ method, path }) => [method, path])).toEqual([['POST', '/api/stations/desk/carried']]);
  expect(URL.createObjectURL).toHaveBeenCalledOnce();
  expect(router.refresh).toHaveBeenCalledOnce();
});

test('an answer is taken, and what of it could not be is told', async () => {
  serve({ 'POST /api/stations/desk/answer': { operations: 2, left: ['There is no such rollout.'] } });
  draw(
    <Carry
      station={station}
      enrolled
      carried={[{ at: '2026-11-29T10:00:00Z', words: '2 operations', answered: null }]}
    />,
  );
  const user = userEvent.setup();
  await user.click(screen.getByRole('button', { name: 'Carry by hand' }));
  expect(screen.getByRole('list', { name: 'Files made lately' }).textContent).toContain('no answer yet');
  await user.upload(screen.getByLabelText('The answer that was carried back'), new File(['x'], 'a.zip'));
  expect(await screen.findByText('Taken: what became of 2 operations is known.')).toBeTruthy();
  expect(screen.getByText('Not taken: There is no such rollout.')).toBeTruthy();
});

test('what stands against an answer is said', async () => {
  const problem = { code: 'x', message: 'This is no answer of an agent.', where: '', remedy: 'Give the file.' };
  serve({ 'POST /api/stations/desk/answer': () => refusal(problem) });
  draw(<Carry station={station} enrolled carried={[]} />);
  const user = userEvent.setup();
  await user.click(screen.getByRole('button', { name: 'Carry by hand' }));
  await user.upload(screen.getByLabelText('The answer that was carried back'), new File(['x'], 'a.zip'));
  expect((await screen.findByRole('alert')).textContent).toContain('no answer of an agent');
});
