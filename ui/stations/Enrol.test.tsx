import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import { Enrol } from './Enrol';

const editors = [
  { id: 'oxbow@2', title: 'Oxbow 2', systems: ['linux', 'macos', 'windows'] },
  { id: 'marlstone@4', title: 'Marlstone 4', systems: ['macos', 'windows'] },
];

async function open(answer: unknown) {
  const asked = serve({ 'POST /api/stations': answer });
  const user = userEvent.setup();
  draw(<Enrol editors={editors} />);
  await user.click(screen.getByRole('button', { name: 'Add a station' }));
  const dialog = within(await screen.findByRole('dialog', { name: 'Add a station' }));
  const add = () => user.click(dialog.getByRole('button', { name: 'Add and make a code' }));
  return { asked, user, dialog, add };
}

describe('adding a station', () => {
  test('what is missing is said below its field, and nothing is sent', async () => {
    const { asked, dialog, add } = await open({});
    await add();
    const alert = await dialog.findByRole('alert');
    expect(alert.textContent).toBe('A station needs a name.');
    const name = dialog.getByLabelText(/^Name/);
    expect(name.getAttribute('aria-invalid')).toBe('true');
    expect(name.getAttribute('aria-describedby')).toBe(alert.id);
    expect(asked).toEqual([]);
  });

  test('all that was typed is sent, and the code is shown with its command', async () => {
    const { asked, user, dialog, add } = await open({ id: 'x', code: 'ABCD-EFGH-JKMN' });
    await user.type(dialog.getByLabelText('Name'), 'Glaze desk');
    await user.selectOptions(dialog.getByLabelText('System'), 'windows');
    await user.click(dialog.getByLabelText('Marlstone 4'));
    await add();
    expect(await screen.findByText(/etagere-agent\.mjs enrol --server \S+ --code ABCD-EFGH-JKMN/)).toBeTruthy();
    expect(asked[0]?.body).toEqual({ name: 'Glaze desk', person: '', system: 'windows', editors: ['marlstone@4'] });
    expect(router.refresh).toHaveBeenCalledOnce();
  });

  test('only editors that there are for the system are offered, and sent', async () => {
    const { asked, user, dialog, add } = await open({ id: 'x', code: 'ABCD-EFGH-JKMN' });
    await user.type(dialog.getByLabelText('Name'), 'Glaze desk');
    await user.click(dialog.getByLabelText('Marlstone 4'));
    await user.click(dialog.getByLabelText('Oxbow 2'));
    await user.selectOptions(dialog.getByLabelText('System'), 'linux');
    expect(dialog.queryByLabelText('Marlstone 4')).toBeNull();
    await add();
    await screen.findByText(/etagere-agent\.mjs enrol/);
    expect(asked[0]?.body).toMatchObject({ system: 'linux', editors: ['oxbow@2'] });
  });

  test('what the server refuses is said, and what was typed stays', async () => {
    const problem = { code: 'station-exists', message: 'It is there.', where: 'name', remedy: 'Choose another.' };
    const { user, dialog, add } = await open(() => refusal(problem));
    await user.type(dialog.getByLabelText('Name'), 'Glaze desk');
    await add();
    expect((await dialog.findByRole('alert')).textContent).toContain('It is there. Choose another.');
    expect((dialog.getByLabelText('Name') as HTMLInputElement).value).toBe('Glaze desk');
  });
});
