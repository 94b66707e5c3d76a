/** People come by a link, which is used once; and are looked after by a lead. */
import { beforeAll, describe, expect, test } from 'vitest';
import { must } from '@/core/must';
import { pool } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { invite, join, newLink, personOfLink } from './invitations';
import { changePerson, peopleFor, signOutPerson, whoMay } from './manage';
import { actions } from './roles';
import { personOf, signIn } from './service';

withDatabase();
const password = 'ten letters and more';
const tokenOf = ({ path }: { path: string }): string => must(path.split('/').pop());
const enter = (token: string, chosen = password) => join({ token, password: chosen }, '10.0.0.3', 'a browser');
const listed = async (email: string) => must((await peopleFor(people.lead)).find((one) => one.email === email));

describe('an invitation', () => {
  const email = 'sable@x.example';
  let token = '';
  beforeAll(async () => {
    token = tokenOf(await invite(people.librarian, { name: 'Sable', email, role: 'retoucher' }));
  });

  test('is somebody who cannot sign in yet, under no password at all', async () => {
    expect(await listed(email)).toMatchObject({ state: 'invited', sessions: 0, seen: null });
    for (const guess of ['', 'null', password])
      await expect(signIn(email, guess, '10.0.0.3', '')).rejects.toMatchObject({ code: 'sign-in-wrong' });
    expect(await personOfLink(token)).toEqual({ name: 'Sable', joined: false });
  });

  test('is refused with a password that is too short, and then holds still', async () => {
    await expect(enter(token, 'short')).rejects.toMatchObject({ code: 'input-invalid' });
    expect(await personOfLink(token)).toEqual({ name: 'Sable', joined: false });
  });

  test('is used once, by whoever is first', async () => {
    const tries = await Promise.allSettled(Array.from({ length: 6 }, () => enter(token)));
    const won = tries.flatMap((one) => (one.status === 'fulfilled' ? [one.value] : []));
    expect(won).toHaveLength(1);
    expect(await personOf(must(won[0]).token)).toMatchObject({ name: 'Sable', role: 'retoucher' });
    await expect(personOfLink(token)).rejects.toMatchObject({ code: 'link-over' });
    expect(await listed(email)).toMatchObject({ state: 'active', sessions: 1, linkUntil: null });
    await signIn(email, password, '10.0.0.3', '');
  });

  test('of an address that is there already is refused', async () => {
    await expect(
      invite(people.lead, { name: 'Other', email: 'SABLE@x.example', role: 'librarian' }),
    ).rejects.toMatchObject({
      code: 'person-exists',
    });
  });

  test.each([
    ['no name but blanks', '   ', 'blank@x.example'],
    ['no address', 'Nobody', 'nowhere'],
    ['a name that is endless', 'x'.repeat(121), 'endless@x.example'],
  ])('with %s is refused', async (_, name, email) => {
    await expect(invite(people.lead, { name, email, role: 'retoucher' })).rejects.toMatchObject({
      code: 'input-invalid',
    });
  });

  test('of any letters and signs is kept as it was typed', async () => {
    const name = 'Łódź Ø 😀';
    const { path } = await invite(people.lead, { name, email: 'any@x.example', role: 'retoucher' });
    expect((await personOfLink(tokenOf({ path }))).name).toBe(name);
  });

  test('holds a week, and not after a newer one was made', async () => {
    const first = tokenOf(await invite(people.librarian, { name: 'Late', email: 'late@x.example', role: 'retoucher' }));
    const { id } = await listed('late@x.example');
    const second = tokenOf(await newLink(people.librarian, id));
    await expect(enter(first)).rejects.toMatchObject({ code: 'link-over' });
    await pool().query(`update person_link set expires_at = now() - interval '1 second' where person_id = $1`, [id]);
    await expect(enter(second)).rejects.toMatchObject({ code: 'link-over' });
    expect(await listed('late@x.example')).toMatchObject({ state: 'invited', linkUntil: null });
  });
});

describe('who may', () => {
  test('make leads is a lead; make another password for somebody, too', async () => {
    const asLead = { name: 'Two', email: 'two@x.example', role: 'lead' as const };
    await expect(invite(people.librarian, asLead)).rejects.toMatchObject({ code: 'not-allowed' });
    await invite(people.lead, asLead);
    const { id } = await listed('two@x.example');
    await expect(newLink(people.librarian, id)).rejects.toMatchObject({ code: 'not-allowed' });
    await expect(newLink(people.librarian, people.retoucher.id)).rejects.toMatchObject({ code: 'not-allowed' });
    await expect(newLink(people.librarian, people.lead.id)).rejects.toMatchObject({ code: 'not-allowed' });
  });

  test('is told of every action, with the roles that are asked for', () => {
    const told = whoMay();
    expect(told).toHaveLength(Object.keys(actions).length);
    expect(new Set(told.map(({ what }) => what)).size).toBe(told.length);
    expect(must(told.find(({ what }) => what.startsWith('give roles'))).roles).toEqual(['lead']);
  });
});

describe('a lead', () => {
  test('makes a link for another password, which ends what was signed in with the old one', async () => {
    const { id } = await listed('sable@x.example');
    const before = await signIn('sable@x.example', password, '10.0.0.3', '');
    const token = tokenOf(await newLink(people.lead, id));
    expect(await personOfLink(token)).toEqual({ name: 'Sable', joined: true });
    expect(await personOf(before.token)).not.toBeNull();
    await enter(token, 'another password altogether');
    expect(await personOf(before.token)).toBeNull();
    await expect(signIn('sable@x.example', password, '10.0.0.3', '')).rejects.toMatchObject({ code: 'sign-in-wrong' });
  });

  test('gives a role, which holds with the next request', async () => {
    const { id } = await listed('sable@x.example');
    const begun = await signIn('sable@x.example', 'another password altogether', '10.0.0.3', '');
    await changePerson(people.lead, id, { role: 'librarian' });
    expect((await personOf(begun.token))?.role).toBe('librarian');
    await expect(changePerson(people.lead, people.lead.id, { role: 'retoucher' })).rejects.toMatchObject({
      code: 'person-self',
    });
    await expect(changePerson(people.lead, people.lead.id, { active: false })).rejects.toMatchObject({
      code: 'person-self',
    });
  });

  test('signs somebody out, and shuts them out: links, too, lead nowhere then', async () => {
    const { id, sessions } = await listed('sable@x.example');
    expect(await signOutPerson(people.lead, id)).toEqual({ ended: sessions });
    const token = tokenOf(await newLink(people.lead, id));
    await changePerson(people.lead, id, { active: false });
    await expect(enter(token)).rejects.toMatchObject({ code: 'link-over' });
    await expect(newLink(people.lead, id)).rejects.toMatchObject({ code: 'person-inactive' });
    expect(await listed('sable@x.example')).toMatchObject({ state: 'inactive' });
    await changePerson(people.lead, id, { active: true });
    await enter(token);
  });
});
