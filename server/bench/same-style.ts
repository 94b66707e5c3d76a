/** The same style from other sources: what does nearly the same, or bears the same name, and comes from another supplier. */
import { fingerprintDistance, fingerprintOfBytes } from '@/core/look/fingerprint';
import type { Sql } from '../db/pool';
import * as q from './queries';

/** Farther apart than this on the mean, two looks are no one style. */
const NEAR = 6;
/** So many are compared, those that were touched last. */
const MOST_COMPARED = 5000;

/** Those that bear a name of the item first, then the nearest by effect; candidates in that order. */
export async function sameStyle(sql: Sql, itemId: string, most: number): Promise<q.CandidateRow[]> {
  const [own, others] = await Promise.all([q.fingerprintOf(sql, itemId), q.fromElsewhere(sql, itemId, MOST_COMPARED)]);
  const effect = own && fingerprintOfBytes(own);
  const away = (row: q.LikeRow): number =>
    effect && row.fingerprint ? fingerprintDistance(effect, fingerprintOfBytes(row.fingerprint)).mean : Infinity;
  const near = others
    .map((row) => ({ row, away: away(row) }))
    .filter(({ row, away: distance }) => row.named || distance <= NEAR)
    .sort((one, other) => Number(other.row.named) - Number(one.row.named) || one.away - other.away)
    .slice(0, most)
    .map(({ row }) => row.version_id);
  const rows = await q.candidates(sql, near);
  return near.flatMap((id) => rows.find((row) => row.version_id === id) ?? []);
}
