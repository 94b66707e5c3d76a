import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import { NewCode } from './NewCode';
import { TwoAgents } from './TwoAgents';

const station = { id: 'desk', name: 'Glaze desk', system: 'macos' as const };

test('a new code is shown with the lines in which it is used', async () => {
  serve({ 'POST /api/stations/desk/code': { code: 'ABCD-EFGH-JKMN' } });
  draw(<NewCode station={station} enrolled={false} />);
  const user = userEvent.setup();
  expect(screen.queryByRole('button', { name: 'Revoke its token' })).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Enrol its agent' }));
  expect(await screen.findByText('ABCD-EFGH-JKMN')).toBeTruthy();
  expect(screen.getByLabelText('Fetch the agent and enrol it').textContent).toContain('--code ABCD-EFGH-JKMN');
  expect(screen.getByText('waiting for the agent to enrol')).toBeTruthy();
});

test('a token is revoked after a word of what that means', async () => {
  const asked = serve({ 'DELETE /api/stations/desk/token': {} });
  draw(<NewCode station={station} enrolled />);
  const user = userEvent.setup();
  await user.click(screen.getByRole('button', { name: 'Revoke its token' }));
  expect(asked).toEqual([]);
  expect((await screen.findByRole('dialog', { name: 'Revoke the token of Glaze desk?' })).textContent).toContain(
    'silent',
  );
  await user.click(screen.getByRole('button', { name: 'Revoke it' }));
  expect(asked.map(({ method, path }) => [method, path])).toEqual([['DELETE', '/api/stations/desk/token']]);
  expect(router.refresh).toHaveBeenCalledOnce();
});

test('what stands against a new code is said', async () => {
  const problem = { code: 'x', message: 'There is no such station.', where: '', remedy: 'Go back to Stations.' };
  serve({ 'POST /api/stations/desk/code': () => refusal(problem) });
  draw(<NewCode station={station} enrolled={false} />);
  await userEvent.setup().click(screen.getByRole('button', { name: 'Enrol its agent' }));
  expect((await screen.findByRole('alert')).textContent).toContain('Go back to Stations.');
});

test('two agents are told with their machines, where these are known', () => {
  draw(<TwoAgents hosts={['desk', 'copy of desk']} at={new Date().toISOString()} />);
  expect(screen.getByRole('status').textContent).toContain('token, on desk and copy of desk, last ');
  draw(<TwoAgents hosts={['', '']} at={new Date().toISOString()} />);
  expect(screen.getAllByRole('status')[1]?.textContent).toContain('token, last ');
});
