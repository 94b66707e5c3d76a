import { describe, expect, test } from 'vitest';
import { acceptanceOf, isComplete, type AcceptForm } from './acceptance';

const form: AcceptForm = {
  shelf: 'kiln',
  newShelf: '',
  byKind: { preset: 'kiln', 'camera-profile': 'profiles', frame: '' },
  supplier: 'Sable Row Looks',
  release: '2',
  licence: '',
  newLicence: { name: '', may_convert: 'unknown', may_spread: 'unknown' },
  origin: '',
  source: { address: ' ', author: 'Mirre' },
};

describe('what is accepted', () => {
  test('goes where it is said to; kinds that go with the rest are not named', () =>
    expect(acceptanceOf(form)).toEqual({
      shelfId: 'kiln',
      byKind: { 'camera-profile': 'profiles' },
      supplier: 'Sable Row Looks',
      release: '2',
      licenceId: null,
      source: { author: 'Mirre' },
    }));

  test('a new shelf and a new licence need names', () => {
    expect(isComplete({ ...form, shelf: 'new', newShelf: ' ' })).toBe(false);
    expect(isComplete({ ...form, licence: 'new' })).toBe(false);
    const named = { ...form, licence: 'new', newLicence: { ...form.newLicence, name: ' One seat ' } };
    expect(isComplete(named)).toBe(true);
    expect(acceptanceOf(named)).toMatchObject({ licenceId: null, newLicence: { name: 'One seat' } });
  });
});
