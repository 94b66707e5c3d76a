/** Other forms of an item: looks as tables, chains and ICC profiles and back; camera profiles as ICC input profiles, or edited. Each is a new draft that knows its source. */
import type { Figures } from '@/core/conversion/outcome';
import type { Derive } from '@/core/conversion/recipe';
import { versionEndpoints } from '@/core/api/versions';
import { pool } from '../db/pool';
import { checked } from '../input';
import { allow, type Person } from '../people/roles';
import type { Kept } from '../conversions/keep';
import { make, type Source } from '../conversions/makers';
import { convertOne, sourceFor } from '../conversions/one';

export interface DerivedView {
  said: string;
  bytes: number;
  residual: Figures | null;
}

async function asked(
  person: Person,
  versionId: string,
  input: unknown,
): Promise<{ source: Source; recipe: Derive; title: string }> {
  allow(person, 'item.convert');
  const { title, ...form } = checked(versionEndpoints['POST /api/versions/:id/derive'].body, input);
  const source = await sourceFor(person, versionId);
  return { source, recipe: { tool: 'derive', ...form }, title: title || source.version.title };
}

/** What would be made, with its error, without keeping it. */
export async function previewDerived(person: Person, versionId: string, input: unknown): Promise<DerivedView> {
  const { source, recipe, title } = await asked(person, versionId, input);
  const { outcome, bytes } = await make(recipe, source, title, pool());
  const { error } = outcome;
  return {
    said: outcome.said,
    bytes: bytes.length,
    residual: error && {
      maxDeltaE: error.maxDeltaE,
      p95DeltaE: error.p95DeltaE,
      meanDeltaE: error.meanDeltaE,
    },
  };
}

/** Makes the other form an item of its own, a draft beside its source, with lineage; the licence has to allow it. */
export async function derive(person: Person, versionId: string, input: unknown): Promise<Kept> {
  const { source, recipe, title } = await asked(person, versionId, input);
  return convertOne(person, recipe, source, title);
}
