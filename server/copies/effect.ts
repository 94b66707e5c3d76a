/** What a version does, computed in a thread of its own. */
import { Problem } from '@/core/problem';
import { getBlob } from '../blobs/service';
import type { Sql } from '../db/pool';
import { compute } from '../threads/computing';
import { noEffect, type Effect } from './effect-of';

const withEffect = ['look', 'preset', 'camera-profile'];

/** Of a version by its kind; what does nothing to colors, or cannot be rendered, has none. */
export async function effectOf(sql: Sql, kind: string, sha: Buffer, facts: Record<string, unknown>): Promise<Effect> {
  if (!withEffect.includes(kind)) return noEffect;
  try {
    const effect = await compute(
      'effect',
      kind === 'preset' ? { kind, facts } : { kind, bytes: await getBlob(sha, sql) },
    );
    return { ...effect, content: effect.content && Buffer.from(effect.content) };
  } catch (error) {
    if (error instanceof Problem) return noEffect;
    throw error;
  }
}
