import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test } from 'vitest';
import { draw } from '../testing/render';
import { refusal, serve } from '../testing/server';
import { Invite } from './Invite';
import { Join } from './Join';
import { PeopleTable, type ListedPerson } from './PeopleTable';
import { WhoMay } from './WhoMay';

const link = { path: '/join/secret', until: '2026-12-04T10:00:00Z' };
const person = (name: string, more: Partial<ListedPerson> = {}): ListedPerson => ({
  id: name,
  name,
  email: `${name}@x.example`,
  role: 'retoucher',
  state: 'active',
  linkUntil: null,
  sessions: 1,
  seen: '2026-11-20T10:00:00Z',
  self: false,
  ...more,
});
const row = (name: string) => within(screen.getByRole('row', { name: new RegExp(`^${name}`) }));

describe('people', () => {
  test('are listed with what they are, and what they are not yet', () => {
    draw(
      <PeopleTable
        manages={false}
        people={[
          person('odile', { self: true }),
          person('mirre', { state: 'invited', linkUntil: link.until, seen: null, sessions: 0 }),
          person('berrin', { state: 'inactive', sessions: 0 }),
        ]}
      />,
    );
    expect(row('odile').getByText('(you)')).toBeTruthy();
    expect(row('mirre').getByText('invited, has not come yet')).toBeTruthy();
    expect(row('berrin').getByText('may not sign in')).toBeTruthy();
    expect(screen.queryByRole('combobox')).toBeNull();
    // whoever may not give roles can still make a new link for somebody who was invited
    expect(screen.getAllByRole('button')).toHaveLength(1);
  });

  test('get another role, which is sent at once', async () => {
    const asked = serve({ 'PATCH /api/people/mirre': {} });
    draw(<PeopleTable manages people={[person('odile', { self: true }), person('mirre')]} />);
    expect(screen.getAllByRole('combobox')).toHaveLength(1);
    await userEvent.setup().selectOptions(screen.getByRole('combobox', { name: 'Role of mirre' }), 'librarian');
    expect(asked.map(({ body }) => body)).toEqual([{ role: 'librarian' }]);
    expect((await screen.findByRole('status')).textContent).toBe('mirre is librarian now');
  });

  test('are shut out, and a link for another password is shown', async () => {
    const asked = serve({ 'PATCH /api/people/mirre': {}, 'POST /api/people/mirre/link': link });
    draw(<PeopleTable manages people={[person('mirre')]} />);
    const user = userEvent.setup();
    const choose = async (words: string) => {
      await user.click(screen.getByRole('button', { name: 'What can be done about mirre' }));
      await user.click(await screen.findByRole('menuitem', { name: words }));
    };
    await choose('Make a link for another password');
    expect((await screen.findByRole<HTMLInputElement>('textbox', { name: 'Link for mirre' })).value).toMatch(
      /\/join\/secret$/,
    );
    await choose('Deactivate');
    expect(asked.map(({ method, body }) => [method, body])).toEqual([
      ['POST', null],
      ['PATCH', { active: false }],
    ]);
  });
});

describe('an invitation', () => {
  test('is sent once all is said, and its link is shown', async () => {
    const asked = serve({ 'POST /api/people/invitations': link });
    draw(<Invite mayLead={false} />);
    const user = userEvent.setup();
    const press = () => user.click(screen.getByRole('button', { name: 'Invite' }));
    await press();
    expect(await screen.findByText('A name is needed.')).toBeTruthy();
    expect(asked).toEqual([]);
    expect(screen.queryByRole('option', { name: 'lead' })).toBeNull();
    await user.type(screen.getByLabelText('Name'), 'Berrin Loe');
    await user.type(screen.getByLabelText('E-mail address'), 'berrin@x.example');
    await press();
    expect(await screen.findByText(/Give this link to Berrin Loe/)).toBeTruthy();
    expect(asked.map(({ body }) => body)).toEqual([
      { name: 'Berrin Loe', email: 'berrin@x.example', role: 'retoucher' },
    ]);
  });

  test('that is over says so, and keeps what was typed', async () => {
    serve({ 'POST /api/join': () => refusal({ code: 'x', message: 'It is over.', where: '', remedy: 'Ask again.' }) });
    draw(<Join token="secret" />);
    const user = userEvent.setup();
    await user.type(screen.getByLabelText(/^Password/), 'ten letters and more{Enter}');
    expect(await screen.findByText(/It is over/)).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>(/^Password/).value).toBe('ten letters and more');
  });
});

test('who may do what is a table of roles', () => {
  draw(<WhoMay rows={[{ what: 'invite people', roles: ['librarian', 'lead'] }]} />);
  const cells = screen.getAllByRole('cell').map((cell) => cell.textContent);
  expect(cells).toEqual(['invite people', 'yes', '–', 'yes']);
});
