import { must } from '@/core/must';
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import { browserOf } from './browser-names';
import { ChangePassword } from './ChangePassword';
import { Sessions } from './Sessions';

const chrome = 'Mozilla/5.0 (Macintosh; Intel Mac OS X 10_15) AppleWebKit/537.36 Chrome/128.0 Safari/537.36';
const at = '2026-11-20T10:00:00Z';

test('browsers are called as people call them', () => {
  expect([chrome, 'curl/8', ''].map(browserOf)).toEqual(['Chrome on macOS', 'curl/8', 'an unknown browser']);
});

test('every session but one’s own can be ended', async () => {
  const asked = serve({ 'DELETE /api/sessions/two': {} });
  const session = { begun: at, seen: at, agent: chrome, network: '10.0.0.1' };
  draw(
    <Sessions
      sessions={[
        { ...session, id: 'one', own: true },
        { ...session, id: 'two', own: false },
      ]}
    />,
  );
  const [, own, other] = screen.getAllByRole('row');
  expect(within(must(own)).queryByRole('button')).toBeNull();
  await userEvent.setup().click(within(must(other)).getByRole('button', { name: /^Sign out Chrome on macOS/ }));
  expect(asked.map(({ path }) => path)).toEqual(['/api/sessions/two']);
  expect(router.refresh).toHaveBeenCalledOnce();
});

describe('another password', () => {
  const open = (answer: unknown) => {
    const asked = serve({ 'POST /api/password': answer });
    draw(<ChangePassword />);
    const user = userEvent.setup();
    const type = async (now: string, then: string) => {
      if (now) await user.type(screen.getByLabelText('Password now'), now);
      if (then) await user.type(screen.getByLabelText(/^New password/), then);
      await user.click(screen.getByRole('button', { name: 'Change the password' }));
    };
    return { asked, type };
  };
  test('is taken, said, and not left standing in the fields', async () => {
    const { asked, type } = open({});
    await type('the old one', 'ten letters and more');
    expect((await screen.findByRole('status')).textContent).toContain('signed out everywhere else');
    expect(asked.map(({ body }) => body)).toEqual([{ current: 'the old one', password: 'ten letters and more' }]);
    expect((screen.getByLabelText('Password now') as HTMLInputElement).value).toBe('');
  });
  test('that is too short is not sent, and a wrong old one is said', async () => {
    const { asked, type } = open(() => refusal({ code: 'x', message: 'It is another.', where: '', remedy: 'Again.' }));
    await type('the old one', 'short');
    expect(await screen.findByText('A password has at least 10 characters.')).toBeTruthy();
    expect(asked).toEqual([]);
    await type('', ' but long enough now');
    expect(await screen.findByText(/It is another/)).toBeTruthy();
  });
});
