/** Makes an item with its first version; inside the caller's transaction. */
import { v7 } from 'uuid';
import { assumedEncoding } from '@/core/look/look';
import { Problem } from '@/core/problem';
import type { Sql } from '../db/pool';
import { record, type Actor } from '../events';
import * as q from './queries';

export interface NewItem { kind: q.Kind; title: string; headings: string[]; shelfId: string; supplier: string; sha: Buffer; fileName: string; format: string; facts: unknown; selvedge: unknown; notes: string }

export async function createItem(sql: Sql, actor: Actor, n: NewItem): Promise<{ itemId: string; versionId: string }> {
  const itemId = v7(), versionId = v7();
  if (!(await q.shelfById(sql, n.shelfId))) throw new Problem('shelf-unknown', 'The chosen shelf is not there.', n.shelfId, 'Choose another shelf.');
  const mono = n.kind === 'preset' && (n.facts as { settings?: { monochrome?: unknown } }).settings?.monochrome ? 'monochrome' : null;
  await q.insertItem(sql, { id: itemId, kind: n.kind, title: n.title.trim().slice(0, 200) || 'Untitled', headings: n.headings.slice(0, 4), shelfId: n.shelfId, supplier: n.supplier, scope: { cameras: null, input: null, result: mono } });
  await q.insertVersion(sql, { id: versionId, itemId, sha: n.sha, fileName: n.fileName.slice(0, 255), format: n.format, facts: n.facts, selvedge: n.selvedge, encoding: n.kind === 'look' ? assumedEncoding : null, notes: n.notes, authorId: actor.personId });
  await record(sql, actor, 'item', itemId, 'made', null, { title: n.title, kind: n.kind });
  return { itemId, versionId };
}
