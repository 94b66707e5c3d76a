/** One source converted at once, in a request: made, then kept as a draft. */
import type { Column, Recipe } from '@/core/conversion/recipe';
import { must } from '@/core/must';
import { Problem } from '@/core/problem';
import { pool, transaction, type Sql } from '../db/pool';
import * as items from '../items/queries';
import { versionFor } from '../items/service';
import { allowUnderLicence } from '../licences/service';
import { allow, type Person } from '../people/roles';
import { keep, usualKeeping, type Kept } from './keep';
import { make, type Layer, type Source } from './makers';

/** A version with its item; throws a Problem where it is not there, or of another kind than it has to be. */
export async function sourceFor(person: Person, versionId: string, kind?: 'preset' | 'look'): Promise<Source> {
  const version = await versionFor(person, versionId);
  if (kind && version.kind !== kind)
    throw new Problem('convert-kind', `${version.title} is no ${kind}.`, version.title, `Choose a ${kind}.`);
  return { version, item: must(await items.itemById(pool(), version.item_id, person.id)) };
}

/** The layers of a column, each by the version that it names. */
const layersOf = (person: Person, { layers }: Column): Promise<Layer[]> =>
  Promise.all(
    layers.map(async ({ version, strength, assumed }) => ({
      source: await sourceFor(person, version),
      strength,
      assumed,
    })),
  );

/** What a recipe takes besides its source. */
export const sourcesFor = async (person: Person, recipe: Recipe, source: Source): Promise<Source> =>
  recipe.tool === 'column' ? { ...source, layers: await layersOf(person, recipe) } : source;

/** The same recipe for what its layers are now: each by the newest version of the form that it was. */
export async function renewed(sql: Sql, recipe: Recipe): Promise<Recipe> {
  if (recipe.tool !== 'column') return recipe;
  const newest = await items.newestOfForms(
    sql,
    recipe.layers.map(({ version }) => version),
  );
  const layers = recipe.layers.map((layer) => ({ ...layer, version: newest.get(layer.version) ?? layer.version }));
  return { ...recipe, layers };
}

/** The licences of all that something is made of have to allow it. */
export async function allowMaking(person: Person, { item, layers = [] }: Source): Promise<void> {
  for (const own of [item, ...layers.map(({ source }) => source.item)]) await allowUnderLicence(person, own, 'convert');
}

/** Makes what the recipe asks for and keeps it as a draft; the licences have to allow it. */
export async function convertOne(person: Person, recipe: Recipe, from: Source, title: string): Promise<Kept> {
  allow(person, 'item.convert');
  const source = await sourcesFor(person, recipe, from);
  await allowMaking(person, source);
  const made = await make(recipe, source, title);
  return transaction((sql) => keep(sql, person, recipe, made, source, usualKeeping(made, source, title, null)));
}
