import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { serve } from '../testing/server';
import { LicenceForm } from './LicenceForm';
import type { Licence } from './model/licence';

const licence: Licence = {
  id: 'one',
  name: 'One studio',
  owner: 'Fathom Color',
  terms: '',
  may_convert: 'yes',
  may_spread: 'unknown',
  seats: 4,
  // the first of its words: the DOM of these tests sets no other on a select that is drawn anew
  seats_by: 'person',
  ends_on: '2027-01-31',
  at_end: 'ask',
  items: 7,
};

function open(given: Licence | null) {
  const asked = serve({ 'POST /api/licences': { id: 'new' }, 'PATCH /api/licences/one': {} });
  const onClose = vi.fn();
  draw(<LicenceForm licence={given} onClose={onClose} />);
  const user = userEvent.setup();
  const save = () => user.click(screen.getByRole('button', { name: 'Save' }));
  return { asked, onClose, user, save };
}

describe('a licence', () => {
  test('needs a name, and has no part of a seat', async () => {
    const { asked, onClose, user, save } = open(null);
    await user.type(screen.getByLabelText('Seats'), '0');
    await save();
    const said = await screen.findAllByRole('alert');
    expect(said.map((alert) => alert.textContent)).toEqual(['A licence needs a name.', 'At least one seat.']);
    expect(asked).toEqual([]);
    expect(onClose).not.toHaveBeenCalled();
  });

  test('that is changed is sent whole, with nothing where nothing stands', async () => {
    const { asked, onClose, user, save } = open(licence);
    await user.clear(screen.getByLabelText('Seats'));
    await user.clear(screen.getByLabelText('Ends on'));
    await user.selectOptions(screen.getByLabelText('May be distributed'), 'no');
    await save();
    await vi.waitFor(() => expect(onClose).toHaveBeenCalledOnce());
    const { id: _id, items: _items, ...rest } = licence;
    expect(asked).toEqual([
      {
        method: 'PATCH',
        path: '/api/licences/one',
        body: { ...rest, may_spread: 'no', seats: null, ends_on: null },
      },
    ]);
  });
});
