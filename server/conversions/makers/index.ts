/** Makes what a recipe asks for of a source; nothing is kept. */
import { takes, type Recipe } from '@/core/conversion/recipe';
import { Problem } from '@/core/problem';
import { pool, type Sql } from '../../db/pool';
import { bakeLook } from './bake';
import { stackColumn } from './column';
import { makeCompanionOf } from './companion';
import { deriveForm } from './derive';
import type { Made, Source } from './made';
import { writePresetFor } from './write';

export type { Layer, Made, Source } from './made';

const kindWords: Record<string, string> = { preset: 'preset', look: 'look', 'camera-profile': 'camera profile' };

/** @throws a Problem where the source is of another kind, or cannot become what is asked for */
export async function make(recipe: Recipe, source: Source, title: string, sql: Sql = pool()): Promise<Made> {
  const { version } = source;
  const kind = takes(recipe);
  if (kind && version.kind !== kind) {
    const word = kindWords[kind] ?? kind;
    throw new Problem('convert-kind', `${version.title} is no ${word}.`, version.title, `Choose a ${word}.`);
  }
  switch (recipe.tool) {
    case 'bake':
      return bakeLook(recipe, source, title, sql);
    case 'preset':
      return writePresetFor(recipe, source, title, sql);
    case 'companion':
      return makeCompanionOf(recipe, source, title, sql);
    case 'derive':
      return deriveForm(recipe, source, title, sql);
    case 'column':
      return stackColumn(recipe, source, title, sql);
  }
}
