/** What an editor's index at a station says, before lines of ours are added to it or taken out. */
import { utf8Text } from '@/core/text';
import { blobSize, bytesOf, getBlob } from '../blobs/service';
import type { Sql } from '../db/pool';
import { indexText } from '../stations/queries';

/** An index is a list of names; what is larger is none. */
const MOST_BYTES = 2_000_000;

/** A content that we have, as text: what we put there ourselves is known before its agent tells it. */
async function ownText(sql: Sql, sha: Buffer): Promise<string | null> {
  const size = await blobSize(sha, sql);
  if (size === null || size > MOST_BYTES) return null;
  return utf8Text(await getBlob(sha, sql));
}

/**
 * @param is the hash of the file that lies there; null where none does
 * @returns empty where there is none; null where one lies there that could not be read, which has to stay as it is
 */
export async function indexAt(sql: Sql, agentId: string, path: string, is: string | null): Promise<string | null> {
  const told = await indexText(sql, agentId, path);
  // agents tell so what is no UTF-8: it would be written with that sign
  if (told !== null) return told.includes('\ufffd') ? null : told;
  return is === null ? '' : ownText(sql, bytesOf(is));
}
