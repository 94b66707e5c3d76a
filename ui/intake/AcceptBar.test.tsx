import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, test, vi } from 'vitest';
import { draw } from '../testing/render';
import { AcceptBar } from './AcceptBar';

const looks = '018f0000-0000-7000-8000-000000000001';
const presets = '018f0000-0000-7000-8000-000000000002';
const licence = '018f0000-0000-7000-8000-000000000003';

function open(more: Partial<Parameters<typeof AcceptBar>[0]> = {}) {
  const onAccept = vi.fn();
  draw(
    <AcceptBar
      usual={looks}
      named="Looks"
      papers={null}
      kinds={['look', 'preset']}
      takeable={5}
      left={0}
      shelves={[
        { id: looks, name: 'Looks' },
        { id: presets, name: 'Presets' },
      ]}
      licences={[{ id: licence, name: 'One studio' }]}
      supplier="Fathom Color"
      busy={false}
      onAccept={onAccept}
      onDiscard={vi.fn()}
      {...more}
    />,
  );
  return { onAccept, user: userEvent.setup() };
}

describe('an arrival is settled', () => {
  test('as proposed: on the usual shelf, a kind of its own on another', async () => {
    const { onAccept, user } = open();
    // said anew: the DOM of these tests sets no other than the first word on a select that is drawn
    await user.selectOptions(screen.getByLabelText('Presets on'), 'Presets');
    await user.click(screen.getByRole('button', { name: 'Accept 5 as proposed' }));
    await vi.waitFor(() => expect(onAccept).toHaveBeenCalledOnce());
    expect(onAccept.mock.calls[0]?.[0]).toMatchObject({
      shelfId: looks,
      newShelf: '',
      byKind: { preset: presets },
      supplier: 'Fathom Color',
      licenceId: null,
      newLicence: null,
    });
  });

  test('under a licence that is listed, from a source that is told', async () => {
    const { onAccept, user } = open({ left: 2 });
    await user.selectOptions(screen.getByLabelText('Licence'), 'One studio');
    await user.click(screen.getByRole('button', { name: 'Source and papers' }));
    await user.type(screen.getByLabelText('Receipt'), 'No. 7');
    await user.click(screen.getByRole('button', { name: 'Accept 3 of 5' }));
    await vi.waitFor(() => expect(onAccept).toHaveBeenCalledOnce());
    expect(onAccept.mock.calls[0]?.[0]).toMatchObject({ licenceId: licence, source: { receipt: 'No. 7' } });
  });

  test('not before a new shelf and a new licence have names', async () => {
    const { onAccept, user } = open();
    await user.selectOptions(screen.getByLabelText('Shelf'), 'a new shelf');
    await user.selectOptions(screen.getByLabelText('Licence'), 'a new licence');
    const accept = screen.getByRole<HTMLButtonElement>('button', { name: 'Accept 5 as proposed' });
    expect(accept.disabled).toBe(true);
    // the arrival's own name is offered
    expect(screen.getByLabelText<HTMLInputElement>('Its name').value).toBe('Looks');
    await user.clear(screen.getByLabelText('Its name'));
    await user.type(screen.getByLabelText('Its name'), 'Autumn ');
    expect(accept.disabled).toBe(true);
    await user.type(screen.getByLabelText('Name of the licence'), 'House rules');
    await user.selectOptions(screen.getByLabelText('May be converted'), 'yes');
    await user.click(accept);
    await vi.waitFor(() => expect(onAccept).toHaveBeenCalledOnce());
    expect(onAccept.mock.calls[0]?.[0]).toMatchObject({
      shelfId: null,
      newShelf: 'Autumn',
      newLicence: { name: 'House rules', may_convert: 'yes', may_spread: 'unknown' },
    });
  });

  test('not without a word where something is too long', async () => {
    const { onAccept, user } = open();
    await user.click(screen.getByRole('button', { name: 'Source and papers' }));
    await user.click(screen.getByLabelText('Address'));
    await user.paste('x'.repeat(5000));
    await user.click(screen.getByRole('button', { name: 'Accept 5 as proposed' }));
    expect((await screen.findByRole('alert')).textContent).toBe('Address: at most 500 characters.');
    expect(onAccept).not.toHaveBeenCalled();
  });

  test('not at all where all of it was left out', () => {
    open({ left: 5 });
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Accept 0 of 5' }).disabled).toBe(true);
  });
});
