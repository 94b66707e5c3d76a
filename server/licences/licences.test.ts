import type { NewLicence } from '@/core/api/studio';
import { must } from '@/core/must';
import { beforeAll, describe, expect, test } from 'vitest';
import { people, withDatabase } from '../db/testing/database';
import { pool } from '../db/pool';
import type { Person } from '../people/roles';
import { addLicence, allowUnderLicence, changeLicence, licenceChoices, listLicences } from './service';
import { many } from '../db/query';

withDatabase();
const says = ['yes', 'no', 'unknown'] as const;
const of = {} as Record<(typeof says)[number] | 'ended', string>;
const day = new Date('2026-06-15T12:00:00Z');
beforeAll(async () => {
  for (const answer of says)
    of[answer] = await addLicence(people.librarian, {
      name: `Says ${answer}`,
      may_convert: answer,
      may_spread: answer,
    });
  of.ended = await addLicence(people.librarian, {
    name: 'Ended',
    may_convert: 'yes',
    may_spread: 'yes',
    ends_on: '2026-06-14',
  });
});
test('for a choice among them, all are named, in the order of their names', async () => {
  const named = (await listLicences(people.retoucher)).map(({ id, name }) => ({ id, name }));
  expect(named.map(({ name }) => name)).toEqual(['Ended', 'Says no', 'Says unknown', 'Says yes']);
  expect(await licenceChoices(people.retoucher)).toEqual(named);
});

const bought = (licence: string | null) => ({ title: 'Kiln Glaze', supplier: 'Fathom Color', licence_id: licence });
const refusal = async (
  person: Person,
  item: ReturnType<typeof bought>,
  what: 'convert' | 'spread',
  today = day,
): Promise<string> => {
  try {
    await allowUnderLicence(person, item, what, today);
    return 'allowed';
  } catch (error) {
    return (error as { code: string }).code;
  }
};

describe.each(['convert', 'spread'] as const)('to %s what was bought', (what) => {
  test('a licence that says yes lets everyone, one that says no lets no one, not even the lead', async () => {
    for (const person of [people.librarian, people.lead]) {
      expect(await refusal(person, bought(of.yes), what)).toBe('allowed');
      expect(await refusal(person, bought(of.no), what)).toBe('licence-forbids');
    }
  });
  test('what is not known, or has no licence, is the lead’s to decide', async () => {
    for (const line of [of.unknown, null]) {
      expect(await refusal(people.librarian, bought(line), what)).toBe('licence-unknown');
      expect(await refusal(people.lead, bought(line), what)).toBe('allowed');
    }
  });
  test('one that has ended is the lead’s to decide, from the day after its last', async () => {
    expect(await refusal(people.librarian, bought(of.ended), what)).toBe('licence-ended');
    expect(await refusal(people.lead, bought(of.ended), what)).toBe('allowed');
    expect(await refusal(people.librarian, bought(of.ended), what, new Date('2026-06-14T23:00:00Z'))).toBe('allowed');
  });
  test('own work needs no leave', async () => {
    expect(await refusal(people.librarian, { title: 'Ours', supplier: '', licence_id: null }, what)).toBe('allowed');
  });
});

test('one word differs between converting and spreading', async () => {
  const line = await addLicence(people.librarian, {
    name: 'One seat',
    may_convert: 'yes',
    may_spread: 'no',
    seats: 1,
    seats_by: 'device',
  });
  expect(await refusal(people.librarian, bought(line), 'convert')).toBe('allowed');
  expect(await refusal(people.librarian, bought(line), 'spread')).toBe('licence-forbids');
});

describe('a licence’s record', () => {
  test('is kept as it was given, its day too, and each change with before and after', async () => {
    const id = await addLicence(people.librarian, {
      name: '  Fathom, studio ',
      owner: 'Fathom Color',
      seats: 3,
      seats_by: 'site',
      ends_on: '2027-01-31',
      at_end: 'keep results',
    });
    const found = async () => must((await listLicences(people.retoucher)).find((l) => l.id === id));
    expect(await found()).toMatchObject({
      name: 'Fathom, studio',
      owner: 'Fathom Color',
      may_convert: 'unknown',
      seats: 3,
      seats_by: 'site',
      ends_on: '2027-01-31',
      at_end: 'keep results',
      items: 0,
    });
    await changeLicence(people.librarian, id, { name: 'Fathom, studio', may_convert: 'yes', ends_on: '' });
    expect(await found()).toMatchObject({ may_convert: 'yes', ends_on: null, owner: '' });
    const events = await many<{ before: { may_convert: string } | null; after: { may_convert: string } }>(
      pool(),
      'select before, after from event where subject_id = $1 order by id',
      [id],
    );
    expect(events.map((e) => [e.before?.may_convert ?? null, e.after.may_convert])).toEqual([
      [null, 'unknown'],
      ['unknown', 'yes'],
    ]);
  });
  test('two of one name, whatever its letters’ case, cannot be', async () => {
    await expect(addLicence(people.librarian, { name: 'says YES' })).rejects.toMatchObject({ code: 'licence-exists' });
    await expect(changeLicence(people.librarian, of.no, { name: 'Says yes' })).rejects.toMatchObject({
      code: 'licence-exists',
    });
    await changeLicence(people.librarian, of.no, { name: 'SAYS NO', may_convert: 'no', may_spread: 'no' });
  });
  test.each([
    ['no name', { name: ' ' }],
    ['a date in words', { name: 'x', ends_on: 'next year' }],
    ['no seats', { name: 'x', seats: 0 }],
    ['half a seat', { name: 'x', seats: 1.5 }],
    ['a word of its own', { name: 'x', may_convert: 'perhaps' }],
  ])('%s is refused', async (_, input) => {
    await expect(addLicence(people.librarian, input as NewLicence)).rejects.toMatchObject({ code: 'input-invalid' });
  });
});
