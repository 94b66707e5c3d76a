/** Editors that an agent finds on its machine and that nobody has said to be there: each is a proposal. */
import type { System } from '@/core/editor/place-schema';
import { resolveTemplate } from '@/core/sync/place-templates';
import type { LookedFor } from '@/core/sync/protocol';
import { pool, type Sql } from '../db/pool';
import { allow, type Person } from '../people/roles';
import * as q from './found-queries';
import type { StationView } from './views';

/**
 * What an agent looks for: the lists that editors write of themselves, of all editors that there are for its system. One
 * that has never written its list has never been started there.
 */
export async function lookedForOn(sql: Sql, system: System): Promise<LookedFor[]> {
  const lists = await q.ownLists(sql, system);
  return lists.map(({ editor, list }) => ({ editor, path: resolveTemplate(list, system) }));
}

export interface FoundEditor {
  /** "editor@version" */ id: string;
  title: string;
}

/** Those that were found at a station and are none of its editors yet. */
export async function foundEditors(person: Person, { station, editors }: StationView): Promise<FoundEditor[]> {
  allow(person, 'view');
  const known = new Set(editors.map(({ editor, version }) => `${editor}@${version}`));
  const others = station.found.filter((one) => !known.has(one));
  return others.length ? q.titlesOf(pool(), others) : [];
}
