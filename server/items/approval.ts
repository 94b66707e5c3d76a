/** Approval: of one version, of many items at once, and taken back. */
import type { AnswerOf, BodyOf } from '@/core/api';
import { itemEndpoints, type LeftOut } from '@/core/api/items';
import type { Encoding } from '@/core/look/look';
import { Problem } from '@/core/problem';
import { record, recordMany } from '../activity/queries';
import { transaction, type Sql } from '../db/pool';
import { checked } from '../input';
import { actorOf, allow, type Person } from '../people/roles';
import { encodeVersion } from './encoding';
import * as q from './queries';

interface Version {
  kind: string;
  number: number;
  status: string;
  encoding: Encoding | null;
}

/** Why a version is not approved as it stands; null where nothing is in the way. */
function objection({ kind, number, status, encoding }: Version): { code: string; why: string; remedy: string } | null {
  if (status !== 'draft')
    return { code: 'status', why: `version ${number} is ${status} already`, remedy: 'Reload the page.' };
  if (kind === 'look' && encoding?.assumed !== false)
    return {
      code: 'encoding-assumed',
      why: 'its encoding is only assumed',
      remedy: 'Confirm its encoding first, then approve it.',
    };
  return null;
}

/** Approves a draft. A look whose encoding is only assumed cannot be approved. For a start, one's own drafts may be. */
export async function approve(person: Person, versionId: string): Promise<void> {
  allow(person, 'item.approve');
  await transaction(async (sql) => {
    await q.lockItemOf(sql, versionId);
    const version = await q.versionById(sql, versionId);
    if (!version)
      throw new Problem('not-found', 'There is no such version.', versionId, 'Go back to Shelves and reload the page.');
    const objected = objection(version);
    if (objected)
      throw new Problem(
        objected.code,
        `${version.title} cannot be approved: ${objected.why}.`,
        version.title,
        objected.remedy,
      );
    await q.setStatus(sql, versionId, 'approved', person.id);
    await record(
      sql,
      actorOf(person),
      'item',
      version.item_id,
      'approved',
      { status: version.status },
      { status: 'approved', version: version.number },
    );
  });
}

const leftOf = ({ item_id: id, title }: q.NewestOfVariant, why: string): LeftOut => ({ id, title, why });

/** Approves what is draft of many items: the newest of each variant. What cannot be is left as it is, and told. */
export async function approveItems(
  person: Person,
  input: BodyOf<'POST /api/items/approve'>,
): Promise<AnswerOf<'POST /api/items/approve'>> {
  allow(person, 'item.approve');
  const { items } = checked(itemEndpoints['POST /api/items/approve'].body, input);
  return transaction(async (sql) => {
    const newest = await newestHeld(sql, items);
    const left: LeftOut[] = [];
    const approved = newest.filter((version) => {
      const objected = objection(version);
      if (objected) left.push(leftOf(version, objected.why));
      return !objected;
    });
    const versions = approved.map(({ id }) => id);
    await q.setStatusOfMany(sql, versions, 'approved', person.id);
    await recordMany(
      sql,
      actorOf(person),
      'item',
      'approved',
      approved.map(({ item_id, number }) => ({
        subjectId: item_id,
        before: { status: 'draft' },
        after: { status: 'approved', version: number },
      })),
    );
    return { versions, left };
  });
}

/** The newest version of each variant of items, which nobody else changes until the transaction ends. */
async function newestHeld(sql: Sql, items: readonly string[]): Promise<q.NewestOfVariant[]> {
  await q.holdItems(sql, items);
  return q.newestOfVariants(sql, items);
}

/** Makes versions drafts again that the same person approved, and that have been placed nowhere since. */
export async function takeApprovalBack(
  person: Person,
  input: BodyOf<'POST /api/items/approve/undo'>,
): Promise<{ changed: number }> {
  allow(person, 'item.approve');
  const { versions } = checked(itemEndpoints['POST /api/items/approve/undo'].body, input);
  return transaction(async (sql) => {
    const back = await q.toDraftAgain(sql, versions, person.id);
    if (back.length < versions.length)
      throw new Problem(
        'approved-used',
        `${versions.length - back.length} of these are used already: placed, planned, a house choice, retired, or approved by somebody else.`,
        'approval',
        'Retire them on their own pages instead.',
      );
    await recordMany(
      sql,
      actorOf(person),
      'item',
      'approval taken back',
      back.map(({ item_id, number }) => ({
        subjectId: item_id,
        before: { status: 'approved', version: number },
        after: { status: 'draft' },
      })),
    );
    return { changed: back.length };
  });
}

/** Says of many looks what their values mean: of the newest of each variant, where that is only assumed. */
export async function confirmEncodings(
  person: Person,
  input: BodyOf<'POST /api/items/encoding'>,
): Promise<AnswerOf<'POST /api/items/encoding'>> {
  allow(person, 'item.edit');
  const { items, encoding } = checked(itemEndpoints['POST /api/items/encoding'].body, input);
  return transaction(async (sql) => {
    const left: LeftOut[] = [];
    let versions = 0;
    for (const version of await newestHeld(sql, items)) {
      if (version.kind !== 'look') left.push(leftOf(version, 'only looks have an encoding'));
      else if (version.encoding?.assumed === false) left.push(leftOf(version, 'its encoding is confirmed already'));
      else {
        await encodeVersion(sql, person, version.id, { ...encoding, assumed: false });
        versions++;
      }
    }
    return { versions, left };
  });
}
