/** Licences: what may be done with what was bought, and who decides where that is unknown. */
import type { BodyOf } from '@/core/api';
import { newLicence } from '@/core/api/studio';
import { must } from '@/core/must';
import { v7 } from 'uuid';
import { Problem } from '@/core/problem';
import { pool, transaction } from '../db/pool';
import { record } from '../activity/queries';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../input';
import * as q from './queries';

export type { LicenceRow } from './queries';
export const listLicences = (person: Person) => {
  allow(person, 'view');
  return q.licences(pool());
};

/** The same, for a choice among them. */
export function licenceChoices(person: Person): Promise<{ id: string; name: string }[]> {
  allow(person, 'view');
  return q.licenceNames(pool());
}

export async function addLicence(person: Person, input: BodyOf<'POST /api/licences'>): Promise<string> {
  allow(person, 'licence.edit');
  const licence = checked(newLicence, input);
  const id = v7();
  return transaction(async (sql) => {
    if (await q.licenceByName(sql, licence.name))
      throw new Problem(
        'licence-exists',
        `There is a licence called ${licence.name} already.`,
        'name',
        'Choose it, or give this one another name.',
      );
    await q.saveLicence(sql, { ...licence, id, ends_on: licence.ends_on || null });
    await record(sql, actorOf(person), 'licence', id, 'made', null, licence);
    return id;
  });
}

export async function changeLicence(
  person: Person,
  id: string,
  input: BodyOf<'PATCH /api/licences/:id'>,
): Promise<void> {
  allow(person, 'licence.edit');
  const licence = checked(newLicence, input);
  await transaction(async (sql) => {
    const before = await q.licenceById(sql, id);
    const named = await q.licenceByName(sql, licence.name);
    if (!before) throw new Problem('not-found', 'There is no such licence.', id, 'Reload the page.');
    if (named && named.id !== id)
      throw new Problem(
        'licence-exists',
        `There is a licence called ${licence.name} already.`,
        'name',
        'Give this one another name.',
      );
    await q.saveLicence(sql, { ...licence, id, ends_on: licence.ends_on || null });
    if (before.name !== licence.name) await q.touchItems(sql, id);
    await record(sql, actorOf(person), 'licence', id, 'changed', before, licence);
  });
}

/**
 * Whether an item may be converted or spread. Own work may; a licence that says no forbids it to everyone; what is not
 * known, or whose licence has ended, needs the lead.
 */
export async function allowUnderLicence(
  person: Person,
  item: { title: string; supplier: string; licence_id: string | null },
  what: 'convert' | 'spread',
  today = new Date(),
): Promise<void> {
  if (!item.licence_id && !item.supplier) return;
  const licence = item.licence_id ? await q.licenceById(pool(), item.licence_id) : undefined;
  const says = licence?.[what === 'convert' ? 'may_convert' : 'may_spread'] ?? 'unknown';
  const doing = what === 'convert' ? 'converted' : 'placed on more than one station';
  if (says === 'no')
    throw new Problem(
      'licence-forbids',
      `The licence ${must(licence).name} does not allow ${item.title} to be ${doing}.`,
      item.title,
      'Ask its owner for leave, and note it on the licence.',
    );
  const over = licence?.ends_on && licence.ends_on < today.toISOString().slice(0, 10);
  if (over && person.role !== 'lead')
    throw new Problem(
      'licence-ended',
      `The licence ${licence.name} of ${item.title} ended on ${licence.ends_on}.`,
      item.title,
      'Renew it, or ask the studio lead to do this.',
    );
  if (says === 'unknown' && person.role !== 'lead')
    throw new Problem(
      'licence-unknown',
      `What the licence of ${item.title} allows is not known; only the studio lead may have it ${doing}.`,
      item.title,
      'Note on its licence what it allows, or ask the lead.',
    );
}
