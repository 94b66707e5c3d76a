import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { Contents } from './Contents';

const told = (unused: object) => ({ all: { contents: 1200, bytes: 4.7e9 }, unused, days: 30 });

test('what nothing refers to is told, and removed after a word of what that means', async () => {
  const asked = serve({
    'GET /api/contents': told({ contents: 40, bytes: 4.1e9 }),
    'DELETE /api/contents': { contents: 40, bytes: 4.1e9 },
  });
  draw(<Contents />);
  const user = userEvent.setup();
  await user.click(await screen.findByRole('button', { name: 'Remove what nothing refers to' }));
  expect(asked.map(({ method }) => method)).toEqual(['GET']);
  await user.click(await screen.findByRole('button', { name: 'Remove 4.1 GB' }));
  expect(await screen.findByText('40 contents, 4.1 GB, are gone.')).toBeTruthy();
});

test('where something refers to each, there is nothing to press', async () => {
  serve({ 'GET /api/contents': told({ contents: 0, bytes: 0 }) });
  draw(<Contents />);
  expect(await screen.findByText(/1,200 contents, 4.7 GB. Something refers to each/)).toBeTruthy();
  expect(screen.queryByRole('button')).toBeNull();
});

test('that they cannot be counted is said', async () => {
  const problem = { code: 'busy', message: 'The server has too much to do.', where: '', remedy: 'Try again.' };
  serve({ 'GET /api/contents': () => refusal(problem) });
  draw(<Contents />);
  expect((await screen.findByRole('alert', {}, { timeout: 8000 })).textContent).toContain('Try again.');
});
