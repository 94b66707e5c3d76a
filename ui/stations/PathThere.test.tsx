import { act, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { PathThere } from './PathThere';

const where = { station: 'desk', agent: 'desk', system: 'windows' as const, shows: true };
const path = 'AppData/Roaming/Tessel/tessel.json#presets/Late Gallery';

test('a path is copied as its system writes it; of an entry, that of its bundle', async () => {
  serve({});
  const user = userEvent.setup();
  draw(<PathThere where={where} path={path} />);
  await user.click(screen.getByRole('button', { name: `Copy the path of ${path}` }));
  expect(await navigator.clipboard.readText()).toBe('%APPDATA%\\Tessel\\tessel.json');
});

test('a path is shown where an agent does that', async () => {
  const asked = serve({ 'POST /api/stations/desk/show': {} });
  const user = userEvent.setup();
  const { rerender } = draw(<PathThere where={where} path={path} />);
  await user.click(screen.getByRole('button', { name: `Show ${path} in the file manager there` }));
  expect(asked.map(({ body }) => body)).toEqual([{ path }]);
  expect(await screen.findByText('its window opens there when the agent looks next')).toBeTruthy();
  act(() => rerender(<PathThere where={{ ...where, shows: false }} path={path} />));
  expect(screen.queryByRole('button', { name: /in the file manager/ })).toBeNull();
});

test('what stands against it is said', async () => {
  const problem = { code: 'x', message: 'No agent is at Desk.', where: '', remedy: 'Copy the path instead.' };
  serve({ 'POST /api/stations/desk/show': () => refusal(problem) });
  const user = userEvent.setup();
  draw(<PathThere where={where} path={path} />);
  await user.click(screen.getByRole('button', { name: /in the file manager/ }));
  expect((await screen.findByRole('alert')).textContent).toContain('No agent is at Desk');
  expect(screen.queryByText(/its window opens/)).toBeNull();
});
