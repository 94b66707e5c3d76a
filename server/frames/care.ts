/** Looking after the frames: their names and groups, and which of them are judged on no more. */
import type { BodyOf } from '@/core/api';
import { frameEndpoints } from '@/core/api/frames';
import { Problem } from '@/core/problem';
import { record } from '../activity/queries';
import { transaction } from '../db/pool';
import { checked } from '../input';
import { actorOf, allow, type Person } from '../people/roles';
import * as q from './queries';

const missing = (id: string): Problem => new Problem('not-found', 'There is no such frame.', id, 'Reload the page.');

/** Says anew what a frame is called, and what it shows under which light. */
export async function changeFrame(person: Person, id: string, input: BodyOf<'PATCH /api/frames/:id'>): Promise<void> {
  allow(person, 'frame.edit');
  const words = checked(frameEndpoints['PATCH /api/frames/:id'].body, input);
  await transaction(async (sql) => {
    const before = await q.lockFrame(sql, id);
    if (!before) throw missing(id);
    await q.setWords(sql, id, words);
    const { name, light, subject } = before;
    await record(sql, actorOf(person), 'frame', id, 'changed', { name, light, subject }, { ...words });
  });
}

/** Puts a frame away, or brings it back. Verdicts and house choices that were made on it stay. */
export async function archiveFrame(
  person: Person,
  id: string,
  input: BodyOf<'POST /api/frames/:id/archive'>,
): Promise<void> {
  allow(person, 'frame.edit');
  const { archived } = checked(frameEndpoints['POST /api/frames/:id/archive'].body, input);
  await transaction(async (sql) => {
    const before = await q.lockFrame(sql, id);
    if (!before) throw missing(id);
    if ((before.archived_at !== null) === archived) return;
    await q.setArchived(sql, id, archived);
    await record(sql, actorOf(person), 'frame', id, archived ? 'archived' : 'brought back', null, null);
  });
}
