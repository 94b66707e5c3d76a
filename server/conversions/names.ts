/** What each row of a conversion will be called, and where that name is borne already. */
import { gives, type Recipe } from '@/core/conversion/recipe';
import { itemFields } from '@/core/item/fields';
import { distinct } from '@/core/lists';
import { titleByPattern } from '@/core/item/title-pattern';
import type { Sql } from '../db/pool';
import { titlesOn, type ConversionRow, type SourceRow } from './queries';

export interface Named {
  title: string;
  shelfId: string;
  /** an item of that kind bears the title there, or another row of the conversion will */ clashes: boolean;
}

type Said = Pick<ConversionRow, 'naming' | 'shelf_id' | 'recipe' | 'clash'>;

const shelfOf = ({ shelf_id }: Pick<ConversionRow, 'shelf_id'>, row: SourceRow): string =>
  shelf_id ?? row.source.shelf_id;

/** Of a title, with room behind it for a number. */
const MOST_SIGNS = itemFields.title.shape.most - 6;

/** A title that nobody bears, with the first number behind it that is free. */
function numbered(title: string, isBorne: (title: string) => boolean): string {
  for (let n = 2; ; n++) if (!isBorne(`${title} ${n}`)) return `${title} ${n}`;
}

export const recipeOfRow = (conversion: Pick<ConversionRow, 'recipe'>, row: Pick<SourceRow, 'recipe'>): Recipe =>
  row.recipe ?? conversion.recipe;

/** Names by place. What becomes a form of its source, or a new version of what was made before, keeps that item's name. */
export async function namesOf(sql: Sql, conversion: Said, rows: readonly SourceRow[]): Promise<Map<number, Named>> {
  const kind = gives(conversion.recipe);
  const borne = kind
    ? await titlesOn(sql, kind, distinct(rows.map((row) => shelfOf(conversion, row))))
    : new Set<string>();
  const names = new Map<number, Named>();
  for (const row of rows) {
    const shelfId = shelfOf(conversion, row);
    if (row.again ?? !kind) {
      names.set(row.place, { title: row.again?.title ?? row.source.title, shelfId, clashes: false });
      continue;
    }
    const { title, cameras, supplier, headings } = row.source;
    const parts = { title, place: row.place, supplier, camera: cameras[0] ?? '', heading: headings.at(-1) ?? '' };
    const wanted = (row.title ?? titleByPattern(conversion.naming, parts)).slice(0, MOST_SIGNS);
    const keyOf = (name: string): string => `${shelfId} ${name.toLowerCase()}`;
    const clashes = row.status !== 'made' && borne.has(keyOf(wanted));
    const isBorne = (name: string): boolean => borne.has(keyOf(name));
    const given = clashes && conversion.clash === 'number' ? numbered(wanted, isBorne) : wanted;
    if (!row.excluded) borne.add(keyOf(given));
    names.set(row.place, { title: given, shelfId, clashes });
  }
  return names;
}
