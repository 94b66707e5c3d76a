/** Three-way merge of a record's fields: what both changed, and differently, is a conflict that a person decides. */
import { same } from './same';

export interface FieldConflict {
  field: string;
  base: unknown;
  mine: unknown;
  theirs: unknown;
}

/** Fields of `mine` merged onto `theirs`, both derived from `base`. Fields that `mine` does not name are left as they are. */
export function mergeFields(
  base: Record<string, unknown>,
  mine: Record<string, unknown>,
  theirs: Record<string, unknown>,
): { merged: Record<string, unknown>; conflicts: FieldConflict[]; kept: string[] } {
  const merged: Record<string, unknown> = {};
  const conflicts: FieldConflict[] = [];
  const kept: string[] = [];
  for (const field of Object.keys(mine)) {
    const before = base[field];
    const ours = mine[field];
    const others = theirs[field];
    if (same(ours, others) || same(before, others)) merged[field] = ours;
    else if (same(before, ours)) {
      merged[field] = others;
      kept.push(field);
    } else {
      merged[field] = ours;
      conflicts.push({ field, base: before ?? null, mine: ours ?? null, theirs: others ?? null });
    }
  }
  return { merged, conflicts, kept };
}
