/**
 * Descriptors from outside. A descriptor says where agents read and write at every station, so one that comes in is a
 * proposal, shown with what it would change, until the lead takes it; and it goes back with the arrival that brought it.
 */
import { v7 } from 'uuid';
import type { BodyOf } from '@/core/api';
import { stationEndpoints } from '@/core/api/stations';
import { editorKey, parseDescriptor, type Descriptor } from '@/core/editor/descriptor';
import { differences, type Difference } from '@/core/editor/differences';
import { placesOutside } from '@/core/editor/own-folder';
import { Problem } from '@/core/problem';
import { record, type Actor } from '../activity/queries';
import { pool, transaction, type Sql } from '../db/pool';
import { checked } from '../input';
import { actorOf, allow, may, type Person } from '../people/roles';
import * as q from './queries';
import { descriptorIn, queueReadingAnew } from './reading';
import { bringDescriptor } from './service';

export interface ProposalView {
  id: string;
  key: string;
  title: string;
  /** the file, or the arrival and the path in it */ cameFrom: string;
  by: string | null;
  at: string;
  /** the editor is not known yet */ isNew: boolean;
  differences: Difference[];
  outside: { what: string; template: string }[];
}

/** Writes a proposal down; null where it says what is known already. Throws where the descriptor breaks a rule. */
export async function propose(
  sql: Sql,
  actor: Actor,
  value: unknown,
  source: { cameFrom: string; arrivalId: string | null },
): Promise<{ id: string; descriptor: Descriptor } | null> {
  const descriptor = parseDescriptor(value, source.cameFrom);
  const known = await q.descriptorOf(sql, descriptor.editor, descriptor.version);
  if (known && differences(known, descriptor).length === 0) return null;
  const id = v7();
  await q.insertProposal(sql, { id, descriptor, ...source, personId: actor.personId });
  await record(sql, actor, 'editor', editorKey(descriptor), 'proposed', null, { from: source.cameFrom });
  return { id, descriptor };
}

/** A descriptor's JSON that a person brings in by itself. It waits for the lead, also where the lead brings it. */
export async function proposeText(
  person: Person,
  text: string,
): Promise<{ id: string; editor: string; version: string }> {
  allow(person, 'editor.propose');
  const value = descriptorIn(text);
  return transaction(async (sql) => {
    const made = await propose(sql, actorOf(person), value, { cameFrom: 'a file', arrivalId: null });
    if (!made)
      throw new Problem(
        'descriptor-known',
        'This editor is described just so already.',
        'descriptor',
        'There is nothing to do.',
      );
    return { id: made.id, editor: made.descriptor.editor, version: made.descriptor.version };
  });
}

export async function openProposals(person: Person): Promise<ProposalView[]> {
  allow(person, 'view');
  const rows = await q.openProposals(pool());
  return rows.map(({ id, descriptor, known, came_from, arrival, by, created_at }) => ({
    id,
    key: editorKey(descriptor),
    title: descriptor.title,
    cameFrom: arrival ? `${came_from}, in ${arrival}` : came_from,
    by,
    at: created_at.toISOString(),
    isNew: !known,
    differences: differences(known, descriptor),
    outside: placesOutside(descriptor),
  }));
}

export const mayDecide = (person: Person): boolean => may(person, 'editor.describe');

/** The lead's word. Places outside the editor's own folders need a word of their own. */
export async function decideProposal(
  person: Person,
  id: string,
  input: BodyOf<'POST /api/proposals/:id'>,
): Promise<void> {
  allow(person, 'editor.describe');
  const { verb, outside } = checked(stationEndpoints['POST /api/proposals/:id'].body, input);
  await transaction(async (sql) => {
    const proposal = await q.proposalById(sql, id);
    if (!proposal) throw new Problem('not-found', 'There is no such proposal.', id, 'Go back to Studio.');
    const { descriptor } = proposal;
    if (proposal.status !== 'open')
      throw new Problem(
        'proposal-settled',
        `This was ${proposal.status} already.`,
        descriptor.title,
        'Reload the page.',
      );
    if (verb === 'decline') {
      await q.settleProposal(sql, id, 'declined', person.id, null);
      await record(sql, actorOf(person), 'editor', editorKey(descriptor), 'declined');
      return;
    }
    const beyond = placesOutside(descriptor);
    if (beyond.length && !outside)
      throw new Problem(
        'descriptor-outside',
        `This descriptor names places outside the editor’s own folders: ${beyond.map((one) => one.template).join(', ')}.`,
        descriptor.title,
        'Allow these places as well, if they are right; or decline it.',
      );
    await bringDescriptor(sql, actorOf(person), descriptor, proposal.came_from);
    if (descriptor.presets) await queueReadingAnew(sql, descriptor, person.id);
    await q.settleProposal(sql, id, 'taken', person.id, await q.newestRevision(sql, descriptor));
  });
}

/** What an arrival proposed is gone with it, and what was taken of it is taken back: the revision before counts again, and presets are read by it. */
export async function takeBackProposals(sql: Sql, actor: Actor, arrivalId: string): Promise<void> {
  for (const { descriptor, revision } of await q.proposalsOf(sql, arrivalId)) {
    if (revision === null) continue;
    await q.dropRevision(sql, descriptor, revision);
    const before = await q.descriptorOf(sql, descriptor.editor, descriptor.version);
    if (before?.presets) await queueReadingAnew(sql, before, actor.personId);
    await record(sql, actor, 'editor', editorKey(descriptor), 'taken back');
  }
  await q.dropProposals(sql, arrivalId);
}
