/** One source converted at once, in a request: made, then kept as a draft. */
import type { Recipe } from '@/core/conversion/recipe';
import { must } from '@/core/must';
import { Problem } from '@/core/problem';
import { pool, transaction } from '../db/pool';
import * as items from '../items/queries';
import { versionFor } from '../items/service';
import { allowUnderLicence } from '../licences/service';
import { allow, type Person } from '../people/roles';
import { keep, usualKeeping, type Kept } from './keep';
import { make, type Source } from './makers';

/** A version with its item; throws a Problem where it is not there, or of another kind than it has to be. */
export async function sourceFor(person: Person, versionId: string, kind?: 'preset' | 'look'): Promise<Source> {
  const version = await versionFor(person, versionId);
  if (kind && version.kind !== kind)
    throw new Problem('convert-kind', `${version.title} is no ${kind}.`, version.title, `Choose a ${kind}.`);
  return { version, item: must(await items.itemById(pool(), version.item_id, person.id)) };
}

/** Makes what the recipe asks for and keeps it as a draft; the licence of the source has to allow it. */
export async function convertOne(person: Person, recipe: Recipe, source: Source, title: string): Promise<Kept> {
  allow(person, 'item.convert');
  const made = await make(recipe, source, title);
  await allowUnderLicence(person, source.item, 'convert');
  return transaction((sql) => keep(sql, person, recipe, made, source, usualKeeping(made, source, title, null)));
}
