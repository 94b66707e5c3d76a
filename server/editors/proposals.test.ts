/** A descriptor from outside changes nothing until the lead says so, and goes back with the arrival that brought it. */
import { beforeAll, describe, expect, test } from 'vitest';
import type { Descriptor } from '@/core/editor/descriptor';
import { must } from '@/core/must';
import oxbow2 from '@/standins/descriptors/oxbow-2.json';
import {
  acceptArrival,
  arrivalFor,
  beginArrival,
  finishUpload,
  readArrival,
  undoArrival,
  uploadPart,
} from '../arrivals/service';
import { pool, transaction } from '../db/pool';
import { many } from '../db/query';
import { people, withDatabase } from '../db/testing/database';
import { runJob } from '../jobs/service';
import { addShelf } from '../shelves/service';
import { createStation } from '../stations/service';
import { actorOf } from '../people/roles';
import { decideProposal, openProposals, proposeText } from './proposals';
import { bringDescriptor, descriptors } from './service';

withDatabase();
let shelf = '';
beforeAll(async () => {
  await transaction((sql) => bringDescriptor(sql, { personId: null, name: 'test' }, oxbow2, 'd'));
  shelf = await addShelf(people.librarian, { name: 'S' });
});

const changed = (part: object): object => ({ ...(oxbow2 as unknown as Descriptor), ...part });
const titleOf = async (): Promise<string> => must((await descriptors()).find((one) => one.editor === 'oxbow')).title;
const only = async () => {
  const [proposal, ...more] = await openProposals(people.librarian);
  expect(more).toEqual([]);
  return must(proposal);
};

async function arrive(descriptor: object): Promise<string> {
  const bytes = Buffer.from(JSON.stringify(descriptor));
  const begun = await beginArrival(people.librarian, {
    name: 'From a stranger',
    files: [{ path: 'oxbow.json', size: bytes.length }],
  });
  const { id } = must(begun.files[0]);
  await uploadPart(people.librarian, id, 0, bytes);
  await finishUpload(people.librarian, id);
  await runJob(must((await arrivalFor(people.librarian, begun.arrival)).arrival.job_id), { arrival: readArrival });
  await acceptArrival(people.librarian, begun.arrival, { shelfId: shelf });
  return begun.arrival;
}

describe('a descriptor in a delivery', () => {
  test('is shown with what it would change, waits for the lead, and is declined', async () => {
    await arrive(changed({ title: 'Oxbow 2, improved' }));
    expect(await titleOf()).toBe(oxbow2.title);
    const proposal = await only();
    expect(proposal).toMatchObject({
      isNew: false,
      cameFrom: 'oxbow.json, in From a stranger',
      differences: [{ at: 'title', before: oxbow2.title, after: 'Oxbow 2, improved' }],
      outside: [],
    });
    await expect(decideProposal(people.librarian, proposal.id, { verb: 'take' })).rejects.toMatchObject({
      code: 'not-allowed',
    });
    await decideProposal(people.lead, proposal.id, { verb: 'decline' });
    expect([await titleOf(), await openProposals(people.lead)]).toEqual([oxbow2.title, []]);
    await expect(decideProposal(people.lead, proposal.id, { verb: 'take' })).rejects.toMatchObject({
      code: 'proposal-settled',
    });
  });

  test('that was taken goes back with its arrival, unless it was described anew since', async () => {
    const arrival = await arrive(changed({ title: 'Oxbow 2, taken' }));
    await decideProposal(people.lead, (await only()).id, { verb: 'take' });
    expect(await titleOf()).toBe('Oxbow 2, taken');
    const later = await arrive(changed({ title: 'Oxbow 2, later' }));
    await decideProposal(people.lead, (await only()).id, { verb: 'take' });
    await expect(undoArrival(people.librarian, arrival)).rejects.toMatchObject({
      code: 'arrival-needed',
      message: expect.stringContaining('described anew since (oxbow)') as string,
    });
    await undoArrival(people.librarian, later);
    expect(await titleOf()).toBe('Oxbow 2, taken');
    await undoArrival(people.librarian, arrival);
    expect(await titleOf()).toBe(oxbow2.title);
    expect(await many(pool(), `select n from editor_revision where editor_id = 'oxbow'`)).toEqual([{ n: 1 }]);
  });

  test('of an editor that stations have been given since is not taken back', async () => {
    const arrival = await arrive(changed({ editor: 'oxbow-own', title: 'Oxbow Own' }));
    await decideProposal(people.lead, (await only()).id, { verb: 'take' });
    await transaction((sql) =>
      createStation(sql, actorOf(people.librarian), {
        name: 'Desk',
        kind: 'workstation',
        system: 'linux',
        person: '',
        hostId: null,
        editors: ['oxbow-own@2'],
        position: 0,
      }),
    );
    await expect(undoArrival(people.librarian, arrival)).rejects.toMatchObject({
      message: expect.stringContaining('that stations have (oxbow-own)') as string,
    });
    await pool().query('delete from station');
    await undoArrival(people.librarian, arrival);
    expect((await descriptors()).map((one) => one.editor)).toEqual(['oxbow']);
  });
});

describe('a descriptor that a person brings', () => {
  test('outside the editor’s own folders needs a word of its own', async () => {
    const music = changed({ places: { ...oxbow2.places, looks: { linux: '{home}/Music' } } });
    const beyond = await proposeText(people.lead, JSON.stringify(music));
    expect((await only()).outside).toEqual([{ what: 'place looks, linux', template: '{home}/Music' }]);
    await expect(decideProposal(people.lead, beyond.id, { verb: 'take' })).rejects.toMatchObject({
      code: 'descriptor-outside',
    });
    await decideProposal(people.lead, beyond.id, { verb: 'take', outside: true });
    expect(must((await descriptors()).find((one) => one.editor === 'oxbow')).places.looks).toEqual({
      linux: '{home}/Music',
    });
    const [event] = await many<{ actor: string }>(
      pool(),
      `select actor from event where subject = 'editor' and action = 'described' order by id desc limit 1`,
    );
    expect(event?.actor).toBe(people.lead.name);
  });
  test.each([
    ['a NUL', 'Oxbow \u0000 2'],
    ['half a surrogate pair', 'Oxbow 2 \ud83d'],
  ])('with %s in a text waits for the lead like any other', async (_, title) => {
    const { id } = await proposeText(people.librarian, JSON.stringify(changed({ title })));
    const { differences } = await only();
    expect(differences.find(({ at }) => at === 'title')?.after).toMatch(/^Oxbow .*\ufffd/u);
    await decideProposal(people.lead, id, { verb: 'decline' });
  });
  test('is what is known of its editor from then on; the others are not read anew, and none can be changed', async () => {
    const [before] = await descriptors();
    expect((await descriptors())[0]).toBe(before);
    expect(() => {
      (must(before).places as Record<string, unknown>).looks = {};
    }).toThrow(TypeError);
    const { id } = await proposeText(people.lead, JSON.stringify(changed({ title: 'Oxbow, renamed' })));
    await decideProposal(people.lead, id, { verb: 'take' });
    expect(must((await descriptors()).find((one) => one.editor === 'oxbow')).title).toBe('Oxbow, renamed');
  });
  test('is refused where it is no JSON, says nothing new, or breaks a rule', async () => {
    const refused = (text: string) => expect(proposeText(people.librarian, text)).rejects;
    await refused('{').toMatchObject({ code: 'descriptor-json' });
    await refused('{}').toMatchObject({ code: 'descriptor-invalid' });
    const now = must((await descriptors()).find((one) => one.editor === 'oxbow'));
    await refused(JSON.stringify(now)).toMatchObject({ code: 'descriptor-known' });
  });
});
