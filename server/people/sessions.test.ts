/** A session is one's own: seen, ended one by one, and over with another password or with leaving the studio. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import { people, withDatabase } from '../db/testing/database';
import { addPerson, personOf, signIn } from './service';
import { changePassword, endSession, sessionsOf, setActive, signOutEverywhere } from './sessions';
import type { Person } from './roles';

withDatabase();
const email = 'guest@x.example';
const first = 'the first password';
const second = 'the second password';
let guest: Person;
beforeAll(async () => {
  guest = await addPerson(people.lead, { name: 'Guest', email, role: 'retoucher', password: first });
});
const begin = async (password: string, agent = 'a browser') => (await signIn(email, password, '10.0.0.9', agent)).token;

describe('sessions', () => {
  test('are listed with browser and network, the own one marked, and ended one by one', async () => {
    const here = await begin(first, 'here');
    const there = await begin(first, 'there');
    const list = await sessionsOf(guest, here);
    expect(list.map(({ agent, network, own }) => [agent, network, own]).sort()).toEqual([
      ['here', '10.0.0.9', true],
      ['there', '10.0.0.9', false],
    ]);
    const other = must(list.find((session) => !session.own));
    await expect(endSession(people.librarian, other.id)).rejects.toMatchObject({ code: 'not-found' });
    expect(await personOf(there)).toMatchObject({ name: 'Guest' });
    await endSession(guest, other.id);
    expect([await personOf(there), (await personOf(here))?.name]).toEqual([null, 'Guest']);
    await expect(endSession(guest, other.id)).rejects.toMatchObject({ code: 'not-found' });
  });
  test('other than the own one end with the password; the wrong old one changes nothing', async () => {
    const here = await begin(first);
    const there = await begin(first);
    await expect(changePassword(guest, here, { current: 'another one', password: second })).rejects.toMatchObject({
      code: 'password-wrong',
    });
    await expect(changePassword(guest, here, { current: first, password: 'short' })).rejects.toMatchObject({
      code: 'input-invalid',
    });
    expect(await personOf(there)).not.toBeNull();
    await changePassword(guest, here, { current: first, password: second });
    expect([(await personOf(here))?.name, await personOf(there)]).toEqual(['Guest', null]);
    await expect(begin(first)).rejects.toMatchObject({ code: 'sign-in-wrong' });
    await begin(second);
  });
  test('end when a person is deactivated or signed out everywhere, by the lead', async () => {
    const one = await begin(second);
    await expect(setActive(people.librarian, email, false)).rejects.toMatchObject({ code: 'not-allowed' });
    await expect(setActive(people.lead, people.lead.email, false)).rejects.toMatchObject({ code: 'person-self' });
    await setActive(people.lead, email, false);
    expect(await personOf(one)).toBeNull();
    await expect(begin(second)).rejects.toMatchObject({ code: 'sign-in-wrong' });
    await setActive(people.lead, email, true);
    const again = await begin(second);
    expect((await signOutEverywhere(people.lead, email)).ended).toBe(1);
    expect(await personOf(again)).toBeNull();
    await expect(setActive(people.lead, 'nobody@x.example', false)).rejects.toMatchObject({ code: 'not-found' });
  });
});
