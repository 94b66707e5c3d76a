/** What the studio as a whole has set. */
import type { BodyOf } from '@/core/api';
import { studioEndpoints } from '@/core/api/studio';
import type { Thresholds } from '@/core/conversion/outcome';
import type { Tolerance } from '@/core/look/fingerprint';
import { pool, transaction, type Sql } from '../db/pool';
import { record } from '../activity/queries';
import { actorOf, allow, type Person } from '../people/roles';
import { checked } from '../input';
import * as q from './queries';

/** Single precision tells 0.3 as 0.30000001; what a person types has two places. */
const plain = (value: number): number => Math.round(value * 100) / 100;

/** How alike in effect two items are to count as copies, in ΔE00: 95 % of colors within the one, all within the other. */
export async function copyTolerance(sql: Sql = pool()): Promise<Tolerance> {
  const tolerance = await q.tolerance(sql);
  return { p95: plain(tolerance.p95), max: plain(tolerance.max) };
}

/** Holds for arrivals that are read from now on, and for the copies among what is held. */
export async function setCopyTolerance(person: Person, input: BodyOf<'PATCH /api/studio'>): Promise<void> {
  allow(person, 'studio.set');
  const tolerance = checked(studioEndpoints['PATCH /api/studio'].body, input) as Tolerance;
  await transaction(async (sql) => {
    const before = await copyTolerance(sql);
    if (before.p95 === tolerance.p95 && before.max === tolerance.max) return;
    await q.setTolerance(sql, tolerance.p95, tolerance.max);
    await record(sql, actorOf(person), 'studio', 'copies', 'set what counts as a copy', before, tolerance);
  });
}

/** How far off a table may be before a lead has to say so: on average, and at its farthest color. */
export async function proofLimits(sql: Sql = pool()): Promise<Thresholds> {
  const { mean, max } = await q.proofLimits(sql);
  return { mean: plain(mean), max: plain(max) };
}

export async function setProofLimits(person: Person, input: BodyOf<'PATCH /api/studio/proof'>): Promise<void> {
  allow(person, 'proof.set');
  const limits = checked(studioEndpoints['PATCH /api/studio/proof'].body, input);
  await transaction(async (sql) => {
    const before = await proofLimits(sql);
    if (before.mean === limits.mean && before.max === limits.max) return;
    await q.setProofLimits(sql, limits.mean, limits.max);
    await record(sql, actorOf(person), 'studio', 'proof', 'set how far off a table may be', before, limits);
  });
}
