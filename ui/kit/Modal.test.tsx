import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { expect, test } from 'vitest';
import { draw } from '../testing/render';
import { Menu, MenuEntry } from './Menu';
import { Modal, ModalFoot } from './Modal';

function Opened({ from }: { from: 'button' | 'menu' }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      {from === 'button' ? (
        <button onClick={() => setOpen(true)}>Open</button>
      ) : (
        <Menu title="More">
          <MenuEntry words="Open" onSelect={() => setOpen(true)} />
        </Menu>
      )}
      {open && (
        <Modal title="A dialog" onClose={() => setOpen(false)}>
          <ModalFoot cancel="Close" />
        </Modal>
      )}
    </>
  );
}

test('the focus comes back to the button that opened it', async () => {
  draw(<Opened from="button" />);
  const user = userEvent.setup();
  const opener = screen.getByRole('button', { name: 'Open' });
  await user.click(opener);
  await screen.findByRole('dialog', { name: 'A dialog' });
  await user.keyboard('{Escape}');
  await waitFor(() => expect(document.activeElement).toBe(opener));
});

test('opened from a menu, the focus comes back to what opened the menu', async () => {
  draw(<Opened from="menu" />);
  const user = userEvent.setup();
  const opener = screen.getByRole('button', { name: 'More' });
  await user.click(opener);
  await user.click(await screen.findByRole('menuitem', { name: 'Open' }));
  await screen.findByRole('dialog', { name: 'A dialog' });
  await user.click(screen.getByRole('button', { name: 'Close' }));
  await waitFor(() => expect(document.activeElement).toBe(screen.getByRole('button', { name: 'More' })));
});
