import type { FacetCount, Spine } from '@/core/api/search';
import { groupBy } from '@/core/lists';

export type { FacetCount, Spine };

export interface ShelfView {
  id: string;
  name: string;
  note: string;
  items: number;
  query: Record<string, string> | null;
  away: boolean;
}
export const kindWords: Record<string, string> = {
  look: 'Look',
  preset: 'Preset',
  'camera-profile': 'Camera profile',
  'icc-profile': 'ICC profile',
  'lens-database': 'Lens database',
  'add-on': 'Add-on',
  'support-file': 'Support file',
};
/** What tells items of one name apart: the camera that they are bound to, and from whom they are. */
export const apart = (spine: Pick<Spine, 'cameras' | 'supplier' | 'kind' | 'language' | 'points'>): string =>
  [spine.cameras.length ? spine.cameras.slice(0, 2).join(', ') : '', spine.supplier || ''].filter(Boolean).join(', ');
export const short = (spine: Spine): string => {
  if (spine.kind === 'look') {
    if (spine.points) return `${spine.points} points`;
    return spine.language;
  }
  if (spine.kind === 'preset') return spine.language;
  return (kindWords[spine.kind] ?? spine.kind).toLowerCase();
};
export const count = (n: number, more: boolean): string => `${n.toLocaleString('en')}${more ? '+' : ''}`;

/** Spines that bear the same title as another. */
export function twinsAmong(spines: readonly Spine[]): ReadonlySet<string> {
  const sameTitle = groupBy(spines, (spine) => spine.title.toLowerCase());
  const twins = [...sameTitle.values()].filter((group) => group.length > 1).flat();
  return new Set(twins.map((spine) => spine.id));
}
