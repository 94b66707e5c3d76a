/** A row of a conversion as the screen has it, and what it says. */
import { proofOf, type Figures, type Proof, type Thresholds } from '@/core/conversion/outcome';
import type { LeftOut } from '@/core/preset/convert';
import type { ToldProblem } from '@/core/problem';
import type { Recipe } from '@/core/conversion/recipe';
import { settingById, settingTitle } from '@/core/preset/settings';

export interface Row {
  place: number;
  source: { itemId: string; title: string; kind: string; number: number; selvedge: [string, string][] | null };
  /** what it will be called, or is */ name: string;
  clashes: boolean;
  /** it becomes a new version, or a form of its source: the name is not for this conversion to say */ named: boolean;
  shelf: string;
  excluded: boolean;
  status: 'unplanned' | 'planned' | 'refused' | 'made' | 'failed';
  recipe: Recipe;
  /** made otherwise than the rest */ own: boolean;
  outcome: {
    said: string;
    carried: string[];
    approximated: { setting: string; reason: string; figure: number | null }[];
    left: LeftOut[];
    unknown: string[];
    error: Figures | null;
    changes: { color: { mean: number; max: number } | null; settings: string[] } | null;
  } | null;
  problem: ToldProblem | null;
  made: { itemId: string; versionId: string; status: string } | null;
}

/** Rows that will be made when the conversion is started. */
export const going = (rows: readonly Row[], clash: 'number' | 'leave' | null): Row[] =>
  rows.filter((row) => row.status === 'planned' && !row.excluded && !(clash === 'leave' && row.clashes));

/** Names that are borne already, among those that will be made. */
export const clashing = (rows: readonly Row[]): Row[] =>
  rows.filter((row) => row.clashes && row.status === 'planned' && !row.excluded);

export interface Carriable {
  setting: string;
  title: string;
  family: string;
  /** rows that use it */ used: number;
  left: boolean;
}

/** All settings that a table can carry of these rows, by family, with how many rows use each. */
export function carriableOf(rows: readonly Row[], recipe: Recipe): Carriable[] {
  if (recipe.tool !== 'bake') return [];
  const used = new Map<string, number>();
  const count = (setting: string): unknown => used.set(setting, (used.get(setting) ?? 0) + 1);
  for (const { outcome } of rows) {
    outcome?.carried.forEach(count);
    for (const { setting } of outcome?.left ?? []) if (recipe.leave.includes(setting)) count(setting);
  }
  for (const setting of recipe.leave) if (!used.has(setting)) used.set(setting, 0);
  return [...used].map(([setting, n]) => ({
    setting,
    title: settingTitle(setting),
    family: settingById.get(setting)?.family ?? '',
    used: n,
    left: recipe.leave.includes(setting),
  }));
}

/** Whether what a row makes is within the thresholds of the studio. */
export const proofOfRow = ({ outcome }: Row, within: Thresholds): Proof | null =>
  outcome ? proofOf(outcome.error, within) : null;

/** The row of the largest error, with the figure; null where nothing is approximated. */
export function worst(rows: readonly Row[]): { name: string; max: number } | null {
  let found: { name: string; max: number } | null = null;
  for (const { name, outcome } of rows) {
    const max = outcome?.error?.maxDeltaE;
    if (max !== undefined && (!found || max > found.max)) found = { name, max };
  }
  return found;
}
