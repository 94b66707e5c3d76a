import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { CallError } from './call';
import { NameDialog } from './NameDialog';

function open(onSave: (name: string, note: string) => Promise<void>) {
  draw(<NameDialog title="A new shelf" action="Make it" onSave={onSave} onClose={vi.fn()} />);
  const user = userEvent.setup();
  return { user, make: () => user.click(screen.getByRole('button', { name: 'Make it' })) };
}

test('a name is needed, and is of a length that can be read', async () => {
  const onSave = vi.fn(async () => {});
  const { user, make } = open(onSave);
  await user.type(screen.getByLabelText('Name'), '   ');
  await make();
  expect((await screen.findByRole('alert')).textContent).toBe('A name is needed.');
  await user.click(screen.getByLabelText('Name'));
  await user.paste('x'.repeat(121));
  await make();
  expect(await screen.findByText('A name has at most 120 signs.')).toBeTruthy();
  expect(onSave).not.toHaveBeenCalled();
});

test('what goes wrong is said in the dialog, and what was typed is still there', async () => {
  const problem = { code: 'name-taken', message: 'There is such a shelf.', where: 'Kiln', remedy: 'Choose another.' };
  const { user, make } = open(() => Promise.reject(new CallError(problem)));
  await user.type(screen.getByLabelText('Name'), 'Kiln');
  await user.type(screen.getByLabelText('Note'), 'for the museum');
  await make();
  expect(await screen.findByText('There is such a shelf.', { exact: false })).toBeTruthy();
  expect(screen.getByLabelText<HTMLInputElement>('Note').value).toBe('for the museum');
});
