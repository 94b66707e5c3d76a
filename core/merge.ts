/** Three-way merge of a record's fields: what both changed, and differently, is a conflict that a person decides. */
export interface FieldConflict {
  field: string;
  base: unknown;
  mine: unknown;
  theirs: unknown;
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

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
    const b = base[field];
    const m = mine[field];
    const t = theirs[field];
    if (same(m, t) || same(b, t)) merged[field] = m;
    else if (same(b, m)) {
      merged[field] = t;
      kept.push(field);
    } else {
      merged[field] = m;
      conflicts.push({ field, base: b ?? null, mine: m ?? null, theirs: t ?? null });
    }
  }
  return { merged, conflicts, kept };
}
