import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { ItemPicker } from './ItemPicker';

const item = (id: string, title: string) => ({
  id,
  title,
  kind: 'look',
  headings: ['Kiln'],
  shelf: 'House looks',
  selvedge: null,
});
const raku = item('raku', 'Raku Night');
const ash = item('ash', 'Ash Glaze');
const answers = {
  'GET /api/search?q=&most=12&kind=look': { items: [raku, ash] },
  'GET /api/search?q=ash&most=12&kind=look': { items: [ash] },
  'GET /api/search?q=nothing&most=12&kind=look': { items: [] },
};

function open(given: Record<string, unknown> = answers) {
  const onPick = vi.fn();
  const asked = serve(given);
  draw(<ItemPicker title="A version of which item?" kind="look" onPick={onPick} onClose={vi.fn()} />);
  return { onPick, asked, user: userEvent.setup(), box: screen.getByRole('combobox', { name: 'Find an item' }) };
}

test('arrows walk, Enter picks, and the one that is at hand is told', async () => {
  const { user, box, onPick } = open();
  await screen.findByRole('option', { name: /Raku Night/ });
  await user.type(box, '{ArrowDown}');
  expect(box.getAttribute('aria-activedescendant')).toBe('picker-1');
  await user.type(box, '{ArrowDown}{Enter}');
  expect(onPick).toHaveBeenCalledWith(ash);
});

test('what is typed is asked for once it stands still, and the old list stays until the new one is there', async () => {
  const { user, box, asked } = open();
  await screen.findByRole('option', { name: /Raku Night/ });
  await user.type(box, 'ash');
  expect(screen.getByRole('option', { name: /Raku Night/ })).toBeTruthy();
  await waitFor(() => expect(screen.queryByRole('option', { name: /Raku Night/ })).toBeNull());
  expect(asked.map(({ path }) => path)).toEqual(
    Object.keys(answers)
      .slice(0, 2)
      .map((name) => name.slice(4)),
  );
});

test('a click picks; nothing found is said, and so is a fault', async () => {
  const { user, box, onPick } = open();
  await user.click(await screen.findByRole('option', { name: /Raku Night/ }));
  expect(onPick).toHaveBeenCalledWith(raku);
  await user.type(box, 'nothing');
  expect(await screen.findByText('Nothing matches.')).toBeTruthy();
});

test('a fault is said, and what to do', async () => {
  open({
    'GET /api/search?q=&most=12&kind=look': () =>
      refusal({ code: 'busy', message: 'The library is busy.', where: '', remedy: 'Try again.' }, 503),
  });
  expect((await screen.findByRole('alert')).textContent).toContain('The library is busy. Try again.');
});

test('several are picked one after the other, and taken together', async () => {
  serve(answers);
  const onPickMany = vi.fn();
  draw(<ItemPicker title="Candidates" kind="look" onPick={vi.fn()} onPickMany={onPickMany} onClose={vi.fn()} />);
  const user = userEvent.setup();
  const box = screen.getByRole('combobox', { name: 'Find an item' });
  await screen.findByRole('option', { name: /Raku Night/ });
  await user.type(box, '{Enter}{ArrowDown}{Enter}');
  expect(screen.getByText('Picked: Raku Night, Ash Glaze')).toBeTruthy();
  await user.type(box, '{Enter}');
  expect(screen.getByText('Picked: Raku Night')).toBeTruthy();
  await user.click(screen.getByRole('option', { name: /Ash Glaze/ }));
  await user.click(screen.getByRole('button', { name: 'Take 2' }));
  expect(onPickMany).toHaveBeenCalledWith([raku, ash]);
});
