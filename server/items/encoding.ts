/** What a look's values mean: said by a person. */
import { versionEndpoints } from '@/core/api/versions';
import { isPlain } from '@/core/look/assumed-encoding';
import { bytesOfFingerprint, fingerprint } from '@/core/look/fingerprint';
import type { Encoding } from '@/core/look/look';
import { sampler } from '@/core/look/sample';
import { selvedge } from '@/core/look/selvedge';
import { Problem } from '@/core/problem';
import { record } from '../activity/queries';
import { transaction, type Sql } from '../db/pool';
import { checked } from '../input';
import { actorOf, allow, type Person } from '../people/roles';
import * as q from './queries';
import { lookOf, type LookSource } from './service';

/** A person says what the look's values mean; until then it is an assumption. */
export async function confirmEncoding(person: Person, versionId: string, input: unknown): Promise<void> {
  allow(person, 'item.edit');
  const encoding = { ...checked(versionEndpoints['POST /api/versions/:id/encoding'].body, input), assumed: false };
  await transaction((sql) => encodeVersion(sql, person, versionId, encoding));
}

/** Within the caller's transaction; with it, what the look does to colors is told anew where that is another thing now. */
export async function encodeVersion(sql: Sql, person: Person, versionId: string, encoding: Encoding): Promise<void> {
  const version = await q.versionById(sql, versionId);
  if (!version)
    throw new Problem('not-found', 'There is no such version.', versionId, 'Go back to Shelves and reload the page.');
  if (version.kind !== 'look')
    throw new Problem(
      'encoding-kind',
      'Only looks have an encoding.',
      version.title,
      'Convert the preset into a look first.',
    );
  await q.setEncoding(sql, versionId, encoding, person.id);
  if (!isPlain(encoding) || (version.encoding && !isPlain(version.encoding)))
    await tellEffect(sql, { ...version, encoding });
  await record(sql, actorOf(person), 'item', version.item_id, 'encoding confirmed', version.encoding, encoding);
}

async function tellEffect(sql: Sql, version: LookSource & { id: string }): Promise<void> {
  try {
    const evaluate = sampler(await lookOf(version, sql));
    await q.setEffect(sql, version.id, selvedge(evaluate), Buffer.from(bytesOfFingerprint(fingerprint(evaluate))));
  } catch (error) {
    // a table that cannot be read has no effect to be told
    if (!(error instanceof Problem)) throw error;
  }
}
