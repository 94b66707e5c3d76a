import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test } from 'vitest';
import { CallError, call } from '../kit/call';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { SignInAgain } from './SignInAgain';

const out = () =>
  refusal({ code: 'sign-in-needed', message: 'You are not signed in any more.', where: 'session', remedy: '' }, 401);
const wrong = () => refusal({ code: 'sign-in-wrong', message: 'It is not right.', where: '', remedy: 'Again.' });

function open() {
  let signedIn = false;
  const asked = serve({
    'POST /api/shelves': () => (signedIn ? { id: 'made' } : out()),
    'DELETE /api/shelves/one': () => (signedIn ? {} : out()),
    'POST /api/session': ({ body }: { body: unknown }) => {
      if ((body as { password: string }).password !== 'the right one') return wrong();
      signedIn = true;
      return { name: 'Odile' };
    },
  });
  draw(<SignInAgain name="Odile" email="odile@x.example" />);
  const user = userEvent.setup();
  const type = async (password: string) => {
    const field = await screen.findByLabelText('Password');
    await user.clear(field);
    await user.type(field, `${password}{Enter}`);
  };
  return { asked, user, type };
}
const make = () => call('POST /api/shelves', { body: { name: 'Kept' } });

test('what was asked after the session’s end waits for the password, and is then done', async () => {
  const { asked, type } = open();
  const both = Promise.all([make(), call('DELETE /api/shelves/:id', { id: 'one' })]);
  await type('a wrong one');
  expect(await screen.findByText(/It is not right/)).toBeTruthy();
  await type('the right one');
  expect(await both).toEqual([{ id: 'made' }, {}]);
  expect(screen.queryByRole('dialog')).toBeNull();
  expect(asked.filter(({ path }) => path === '/api/session')).toHaveLength(2);
  expect(asked.filter(({ path }) => path === '/api/shelves').map(({ body }) => body)).toEqual([
    { name: 'Kept' },
    { name: 'Kept' },
  ]);
});

test('not now: what was asked says that one is signed out', async () => {
  const { user } = open();
  const made = make().catch((error: unknown) => error);
  await user.click(await screen.findByRole('button', { name: 'Not now' }));
  expect(((await made) as CallError).problem.code).toBe('sign-in-needed');
  expect(screen.queryByRole('dialog')).toBeNull();
});
