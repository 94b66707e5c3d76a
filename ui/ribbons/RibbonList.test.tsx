import { fireEvent, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import { RibbonList, type Ribbon } from './RibbonList';
import { DRAG } from './RibbonRow';

const ribbon = (id: number, title: string, forgotten = false): Ribbon => ({
  id,
  itemId: `item-${id}`,
  title,
  shelf: 'House looks',
  kind: 'look',
  selvedge: null,
  by: 'Odile Wren',
  at: '2026-11-01T10:00:00.000Z',
  used: null,
  stations: 0,
  forgotten,
});
const ribbons = [ribbon(11, 'Ash'), ribbon(12, 'Raku', true), ribbon(13, 'Tenmoku', true)];

function open(answers: Record<string, unknown> = {}, may = true) {
  const asked = serve({ 'POST /api/ribbons': {}, 'DELETE /api/ribbons': { cleared: 2 }, ...answers });
  draw(<RibbonList ribbons={ribbons} whose="mine" may={may} />);
  return { asked, user: userEvent.setup() };
}
const row = (title: string) => screen.getByRole('link', { name: title }).closest('tr') as HTMLElement;
const dropping = (type: string, data: string) => ({
  dataTransfer: { types: [type], getData: (of: string) => (of === type ? data : '') },
});

describe('ribbons', () => {
  test('are moved by button, and the ends have no further to go', async () => {
    const { asked, user } = open();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Ash up' }).disabled).toBe(true);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Tenmoku down' }).disabled).toBe(true);
    await user.click(screen.getByRole('button', { name: 'Tenmoku up' }));
    expect(asked[0]?.body).toEqual({ whose: 'mine', ribbons: [11, 13, 12] });
    expect(router.refresh).toHaveBeenCalledOnce();
  });

  test('are moved by dragging; a file or a word that is dropped moves nothing', async () => {
    const { asked } = open();
    fireEvent.drop(row('Ash'), dropping('Files', ''));
    fireEvent.drop(row('Ash'), dropping('text/plain', '2'));
    expect(asked).toEqual([]);
    fireEvent.drop(row('Tenmoku'), dropping(DRAG, '0'));
    await waitFor(() => expect(asked[0]?.body).toEqual({ whose: 'mine', ribbons: [12, 13, 11] }));
  });

  test('that nobody used are found in one step and taken off', async () => {
    const { asked, user } = open();
    await user.click(screen.getByRole('button', { name: /^Choose the 2 that nobody used/ }));
    await user.click(screen.getByRole('button', { name: 'Take 2 off' }));
    expect(asked).toEqual([{ method: 'DELETE', path: '/api/ribbons', body: { whose: 'mine', ribbons: [12, 13] } }]);
    await waitFor(() =>
      expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Take the chosen off' }).disabled).toBe(true),
    );
  });

  test('stay chosen where the server says no, and it is said why', async () => {
    const refuse = () => refusal({ code: 'x', message: 'Not now.', where: '', remedy: 'Try again.' });
    const { user } = open({ 'DELETE /api/ribbons': refuse });
    await user.click(screen.getByLabelText('Choose the ribbon on Raku'));
    await user.click(screen.getByRole('button', { name: 'Take 1 off' }));
    expect((await screen.findByRole('alert')).textContent).toContain('Not now. Try again.');
    expect(screen.getByLabelText<HTMLInputElement>('Choose the ribbon on Raku').checked).toBe(true);
  });

  test('are only looked at by who may not change them', () => {
    open({}, false);
    expect(screen.queryAllByRole('button')).toEqual([]);
    expect(row('Ash').getAttribute('draggable')).toBeNull();
  });
});
