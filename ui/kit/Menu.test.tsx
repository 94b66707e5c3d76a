import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { Menu, MenuEntry, MenuSwitch } from './Menu';

function open() {
  const chosen = vi.fn<(what: string) => void>();
  draw(
    <Menu title="More">
      <MenuEntry words="Not now" off onSelect={() => chosen('not now')} />
      <MenuEntry words="Rename" onSelect={() => chosen('rename')} />
      <MenuSwitch words="Points" on onSwitch={() => chosen('points')} />
    </Menu>,
  );
  return { user: userEvent.setup(), chosen };
}
const button = () => screen.getByRole('button', { name: 'More' });

describe('a menu', () => {
  test('says that it is one before it was ever opened', () => {
    open();
    expect(button().getAttribute('aria-haspopup')).toBe('menu');
    expect(button().getAttribute('aria-expanded')).toBe('false');
    expect(screen.queryByRole('menu')).toBeNull();
  });

  test('opens by a click, and does what is chosen', async () => {
    const { user, chosen } = open();
    await user.click(button());
    await user.click(await screen.findByRole('menuitem', { name: 'Rename' }));
    expect(chosen).toHaveBeenCalledWith('rename');
    expect(screen.queryByRole('menu')).toBeNull();
  });

  test.each(['{Enter}', ' ', '{ArrowDown}'])(
    'opens by the key “%s” on its first entry that can be chosen',
    async (key) => {
      const { user, chosen } = open();
      button().focus();
      await user.keyboard(key);
      const first = await screen.findByRole('menuitem', { name: 'Rename' });
      await expect.poll(() => document.activeElement).toBe(first);
      await user.keyboard('{Enter}');
      expect(chosen).toHaveBeenCalledWith('rename');
    },
  );

  test('gives the focus back to its button, and opens again', async () => {
    const { user } = open();
    await user.click(button());
    await screen.findByRole('menu');
    await user.keyboard('{Escape}');
    await expect.poll(() => document.activeElement).toBe(button());
    await user.keyboard('{Enter}');
    expect(await screen.findByRole('menu')).toBeTruthy();
  });

  test('stays open while one switches', async () => {
    const { user, chosen } = open();
    await user.click(button());
    await user.click(await screen.findByRole('menuitemcheckbox', { name: 'Points' }));
    expect(chosen).toHaveBeenCalledWith('points');
    expect(screen.getByRole('menu')).toBeTruthy();
  });
});
