/** Many items side by side: what they are, and how they stand against what an editor or a card asks. */
import { checklistOf, type CheckedThing, type ThingToCheck } from '@/core/editor/checklist';
import type { Descriptor } from '@/core/editor/descriptor';
import { assumedEncoding } from '@/core/look/look';
import { distinct } from '@/core/lists';
import { isUuid } from '@/core/uuid';
import { pool } from '../db/pool';
import { descriptors } from '../editors/service';
import { allow, type Person } from '../people/roles';
import { searchItems } from '../search/service';
import * as q from './queries';

export type { InspectedRow } from './queries';

/** So many are inspected at once; an address holds no more. */
export const MOST_INSPECTED = 400;

/** What is inspected, as an address says it. */
export interface AskedToInspect {
  items?: string | undefined;
  shelf?: string | undefined;
  pack?: string | undefined;
}

/** What is no identifier is passed over, as what is not there any more. `more` says that the list was cut. */
export async function itemsToInspect(
  person: Person,
  { items, shelf, pack }: AskedToInspect,
): Promise<{ rows: q.InspectedRow[]; more: boolean }> {
  allow(person, 'view');
  const chosen = (items ?? '').split(',').filter(isUuid);
  const standing = isUuid(shelf) ? (await searchItems(person, { shelf }, MOST_INSPECTED + 1)).rows : [];
  const asked = distinct([...chosen, ...standing.map(({ id }) => id)]).slice(0, MOST_INSPECTED + 1);
  const found = asked.length ? await q.inspectedItems(pool(), asked) : [];
  if (isUuid(pack)) found.push(...(await q.inspectedInPack(pool(), pack, MOST_INSPECTED + 1)));
  const rows = [...new Map(found.map((row) => [row.id, row])).values()];
  return { rows: rows.slice(0, MOST_INSPECTED), more: rows.length > MOST_INSPECTED };
}

/** Looks that say nothing of their values are taken for the usual ones. */
const encodingOf = ({ kind, encoding }: q.InspectedRow): ThingToCheck['encoding'] =>
  kind === 'look' ? { is: encoding ?? assumedEncoding, assumed: encoding?.assumed ?? true } : null;

const thingOf = (row: q.InspectedRow): ThingToCheck => ({
  id: row.id,
  title: row.title,
  kind: row.kind,
  format: row.format,
  status: row.status,
  input: row.scope.input ?? null,
  result: row.scope.result ?? null,
  cameras: row.cameras,
  iccClass: row.icc_class,
  points: row.points,
  encoding: encodingOf(row),
});

/** The targets that there are, and how the items stand against one of them; null where none of that key is described. */
export async function checkAgainst(
  person: Person,
  rows: readonly q.InspectedRow[],
  key: string,
): Promise<{ targets: Descriptor[]; checked: { target: Descriptor; things: CheckedThing[] } | null }> {
  allow(person, 'view');
  const targets = (await descriptors()).filter((descriptor) => descriptor.accepts.length > 0);
  const target = targets.find(({ editor, version }) => `${editor}@${version}` === key);
  return { targets, checked: target ? { target, things: checklistOf(target, rows.map(thingOf)) } : null };
}
