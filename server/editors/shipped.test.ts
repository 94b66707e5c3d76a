/** What ships is brought in once; what a studio has said since is kept. */
import { expect, test } from 'vitest';
import { must } from '@/core/must';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import { transaction } from '../db/pool';
import { people, withDatabase } from '../db/testing/database';
import { decideProposal, openProposals, proposeText } from './proposals';
import { listEditors } from './service';
import { bringShipped } from './shipped';

withDatabase();

const ship = (more: object = {}) =>
  transaction((sql) => bringShipped(sql, { personId: null, name: 'set-up' }, { ...oxbow2, ...more }, 'oxbow-2.json'));
const known = async () => {
  const [editor] = await listEditors(people.lead);
  return [must(editor).descriptor.title, must(editor).revisions];
};

test('comes once, and a newer one takes its place', async () => {
  await ship();
  await ship();
  expect(await known()).toEqual(['Oxbow 2', 1]);
  await ship({ title: 'Oxbow 2.1' });
  expect(await known()).toEqual(['Oxbow 2.1', 2]);
  // an older one that is started again beside the newer says nothing new
  await ship();
  expect(await known()).toEqual(['Oxbow 2.1', 2]);
});

test('what the studio said is kept at every start, and a newer one that ships is proposed once', async () => {
  const { id } = await proposeText(people.librarian, JSON.stringify({ ...oxbow2, title: 'Our Oxbow' }));
  await decideProposal(people.lead, id, { verb: 'take' });
  await ship({ title: 'Oxbow 2.1' });
  expect([await known(), await openProposals(people.lead)]).toEqual([['Our Oxbow', 3], []]);
  for (const _start of [1, 2]) await ship({ title: 'Oxbow 2.2' });
  expect(await known()).toEqual(['Our Oxbow', 3]);
  const [proposal, ...more] = await openProposals(people.lead);
  expect([proposal?.cameFrom, more]).toEqual(['Etagere, oxbow@2 as it ships', []]);
  await decideProposal(people.lead, must(proposal).id, { verb: 'decline' });
  await ship({ title: 'Oxbow 2.2' });
  expect(await openProposals(people.lead)).toEqual([]);
});
