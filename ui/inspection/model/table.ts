/** Items that are inspected together as a table: its order, and the same as CSV. */
import { csvOf } from '@/core/csv';
import { findingWords, inspectionFigures, type FigureName } from '@/core/look/inspection-figures';
import type { Found, FoundOf, InspectedItem } from './item';

export type Column = 'title' | 'verdict' | FigureName;
export interface Order {
  by: Column;
  /** from the end of the alphabet, or from the best */ turned: boolean;
}

const verdictRank = { poor: 0, caution: 1, good: 2 } as const;
const less = new Set(inspectionFigures.filter(({ worse }) => worse === 'less').map(({ name }) => name));

/** Small is worse, so that what needs a look stands first; null for what is not known, which stands last. */
function rank(found: Found, by: Exclude<Column, 'title'>): number | null {
  if (found.is !== 'found') return null;
  if (by === 'verdict') return verdictRank[found.inspection.verdict];
  const figure = found.inspection.figures[by];
  if (figure === null) return null;
  return less.has(by) ? figure : -Math.abs(figure);
}

/** Items of one rank keep the order in which they are given. */
export function sorted(items: readonly InspectedItem[], foundOf: FoundOf, { by, turned }: Order): InspectedItem[] {
  const turn = turned ? -1 : 1;
  if (by === 'title') {
    const collator = new Intl.Collator('en', { numeric: true });
    return [...items].sort((a, b) => turn * collator.compare(a.title, b.title));
  }
  return [...items].sort((a, b) => {
    const [one, other] = [rank(foundOf(a), by), rank(foundOf(b), by)];
    if (one === null || other === null) return Number(one === null) - Number(other === null);
    return turn * (one - other);
  });
}

/** A column that is asked for again is turned round. */
export const orderedBy = ({ by, turned }: Order, column: Column): Order => ({
  by: column,
  turned: by === column && !turned,
});

/** One row an item, with each figure in full; what is not known is empty. */
export function inspectionCsv(items: readonly InspectedItem[], foundOf: FoundOf): string {
  const heads = inspectionFigures.map(({ words, unit }) => (unit ? `${words} (${unit})` : words));
  const rows = items.map((item) => {
    const found = foundOf(item);
    if (found.is !== 'found') return [item.title, item.about, '', '', ...heads.map(() => '')];
    const { verdict, findings, figures } = found.inspection;
    return [
      item.title,
      item.about,
      verdict,
      findings.map(({ code }) => findingWords[code]),
      ...inspectionFigures.map(({ name }) => figures[name] ?? ''),
    ];
  });
  return csvOf([['item', 'kind', 'verdict', 'findings', ...heads], ...rows]);
}
