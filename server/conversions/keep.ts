/** Keeps what was made: as an item of its own, as a form of its source's item, or as a new version of what was made before. */
import type { Recipe } from '@/core/conversion/recipe';
import { distinct } from '@/core/lists';
import { record } from '../activity/queries';
import { putBlob } from '../blobs/service';
import type { Sql } from '../db/pool';
import { addVersion, createItem, takenOver, type NewVersion } from '../items/create';
import * as items from '../items/queries';
import { actorOf, type Person } from '../people/roles';
import { bindTo } from '../references/queries';
import type { Made, Source } from './makers';

export interface Kept {
  itemId: string;
  versionId: string;
}

/** Where it goes. */
export type Keeping =
  | { as: 'item'; title: string; /** null: where its source stands */ shelfId: string | null }
  | { as: 'version'; itemId: string; variant: string };

async function newVersionOf(sql: Sql, made: Made): Promise<NewVersion> {
  const { kind, fileName, format, facts, selvedge, notes, encoding, variant } = made;
  return {
    kind,
    fileName,
    format,
    facts,
    selvedge,
    notes,
    sha: await putBlob(sql, Buffer.from(made.bytes)),
    ...(encoding ? { encoding } : {}),
    ...(variant ? { variant } : {}),
  };
}

/** Within the caller's transaction. What is made of a source knows it, and the recipe. */
export async function keep(
  sql: Sql,
  person: Person,
  recipe: Recipe,
  made: Made,
  { version, item, layers = [] }: Source,
  keeping: Keeping,
): Promise<Kept> {
  const actor = actorOf(person);
  const fresh = await newVersionOf(sql, made);
  const kept =
    keeping.as === 'version'
      ? {
          itemId: keeping.itemId,
          versionId: await addVersion(sql, actor, keeping.itemId, { ...fresh, variant: keeping.variant }),
        }
      : await createItem(sql, actor, {
          ...fresh,
          title: keeping.title,
          headings: version.headings,
          ...takenOver(item),
          ...(keeping.shelfId ? { shelfId: keeping.shelfId } : {}),
          ...(made.result ? { result: made.result } : {}),
        });
  if (made.calls) await bindTo(sql, kept.versionId, 'look', made.calls, person.id);
  for (const id of distinct([version.id, ...layers.map(({ source }) => source.version.id)]))
    await items.insertLineage(sql, kept.versionId, id, { ...recipe, ...made.figures });
  await record(sql, actor, 'item', kept.itemId, made.told.action, { source: version.id }, made.told.after);
  return kept;
}

/** Where what a maker gives is kept when it is made for the first time. */
export const usualKeeping = (made: Made, { item }: Source, title: string, shelfId: string | null): Keeping =>
  made.variant ? { as: 'version', itemId: item.id, variant: made.variant } : { as: 'item', title, shelfId };
