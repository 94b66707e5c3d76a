import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { router } from '../testing/setup';
import { AddCard } from './AddCard';
import { ChangeStation } from './ChangeStation';

const choices = [
  { id: 'marlstone@3', title: 'Marlstone 3', systems: ['macos'] },
  { id: 'marlstone@4', title: 'Marlstone 4', systems: ['macos'] },
  { id: 'oxbow@2', title: 'Oxbow 2', systems: ['macos'] },
];
const cameras = [
  { id: 'alder', title: 'Perrin Alder' },
  { id: 'red', title: 'Perrin Alder, infrared' },
];
const station = {
  id: 'desk',
  name: 'Glaze desk',
  person: 'Mirre Sand',
  retired: false,
  editors: ['marlstone@3'],
  cameras: ['alder'],
  groups: ['Kiln'],
};

async function open(answer: unknown = {}) {
  const asked = serve({ 'PATCH /api/stations/desk': answer, 'PATCH /api/stations/desk/cameras': {} });
  const user = userEvent.setup();
  draw(<ChangeStation station={station} choices={choices} cameras={cameras} placed={{ 'marlstone@3': 2 }} />);
  await user.click(screen.getByRole('button', { name: 'Change' }));
  const dialog = within(await screen.findByRole('dialog', { name: 'Change Glaze desk' }));
  return { asked, user, dialog };
}

describe('changing a station', () => {
  test('an editor’s new version comes, the old one goes; what becomes of our files is said first', async () => {
    const { asked, user, dialog } = await open();
    expect(dialog.getByLabelText<HTMLInputElement>('Marlstone 3').checked).toBe(true);
    await user.click(dialog.getByLabelText('Marlstone 4'));
    expect(dialog.queryByRole('status')).toBeNull();
    await user.click(dialog.getByLabelText('Marlstone 3'));
    expect(dialog.getByRole('status').textContent).toContain(
      'Etagere has put 2 files for Marlstone 3 there. They stay where they are',
    );
    await user.click(dialog.getByRole('button', { name: 'Save' }));
    expect(asked[0]?.body).toMatchObject({ name: 'Glaze desk', came: ['marlstone@4'], went: ['marlstone@3'] });
  });

  test('cameras that are used there come and go by what changed', async () => {
    const { asked, user, dialog } = await open();
    expect(dialog.getByText(/Profiles of other cameras are left out/)).toBeTruthy();
    await user.click(dialog.getByLabelText('Perrin Alder, infrared'));
    await user.click(dialog.getByLabelText('Perrin Alder'));
    await user.click(dialog.getByRole('button', { name: 'Save' }));
    expect(asked.map(({ body }) => body)).toMatchObject([
      { came: [], went: [] },
      { came: ['red'], went: ['alder'] },
    ]);
  });

  test('a name alone says nothing of the editors, which somebody else may be changing', async () => {
    const { asked, user, dialog } = await open();
    await user.type(dialog.getByLabelText('Name'), ' two');
    await user.click(dialog.getByRole('button', { name: 'Save' }));
    expect(asked[0]?.body).toMatchObject({ name: 'Glaze desk two', came: [], went: [] });
  });

  test('groups are typed with commas between them', async () => {
    const { asked, user, dialog } = await open();
    const groups = dialog.getByLabelText<HTMLInputElement>('Groups, with commas between them');
    expect(groups.value).toBe('Kiln');
    await user.type(groups, ', Upper floor,, Kiln');
    await user.click(dialog.getByRole('button', { name: 'Save' }));
    expect(asked[0]?.body).toMatchObject({ groups: ['Kiln', 'Upper floor'] });
  });

  test('what the server refuses is said, and what was ticked stays', async () => {
    const problem = { code: 'editor-busy', message: '1 file waits.', where: 'Glaze desk', remedy: 'Leave it out.' };
    const { user, dialog } = await open(() => refusal(problem));
    await user.click(dialog.getByLabelText('Marlstone 3'));
    await user.click(dialog.getByRole('button', { name: 'Save' }));
    expect(await dialog.findByText(/1 file waits\./)).toBeTruthy();
    expect(dialog.getByLabelText<HTMLInputElement>('Marlstone 3').checked).toBe(false);
  });
});

test('a card is added to the reader of a workstation, and is looked at', async () => {
  const asked = serve({ 'POST /api/stations/room/card': { id: 'card' } });
  const user = userEvent.setup();
  const cameras = [{ id: 'perrin-alder@1', title: 'Perrin Alder', systems: ['linux'] }];
  draw(<AddCard host={{ id: 'room', name: 'Model room' }} cameras={cameras} />);
  await user.click(screen.getByRole('button', { name: 'Add a card' }));
  const dialog = within(await screen.findByRole('dialog', { name: 'Add a card in the reader of Model room' }));
  await user.click(dialog.getByRole('button', { name: 'Add it' }));
  expect((await dialog.findByRole('alert')).textContent).toBe('A card needs a name.');
  await user.type(dialog.getByLabelText('Name'), 'Card two');
  await user.click(dialog.getByRole('button', { name: 'Add it' }));
  expect(asked[0]?.body).toEqual({ name: 'Card two', camera: 'perrin-alder@1' });
  expect(router.push).toHaveBeenCalledWith('/stations/card');
});
