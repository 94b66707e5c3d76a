/** Lens databases that are held, read. */
import { calibrations, type Calibrations } from '@/core/lens/calibrated';
import { Problem } from '@/core/problem';
import { recentlyUsed } from '@/core/recently-used';
import { getBlob } from '../blobs/service';
import type { Sql } from '../db/pool';

/** The databases that were read last: a page of coverage asks for the same ones again and again. */
const databases = recentlyUsed<Calibrations | null>(50);

/** Null for a file that was taken in as a lens database by hand, and is none. */
export const calibrationsOf = (sql: Sql, sha: Buffer): Promise<Calibrations | null> =>
  databases(sha.toString('hex'), async () => {
    try {
      return calibrations(new Uint8Array(await getBlob(sha, sql)));
    } catch (error) {
      if (error instanceof Problem) return null;
      throw error;
    }
  });
