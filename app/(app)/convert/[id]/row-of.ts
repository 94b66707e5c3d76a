import { gives } from '@/core/conversion/recipe';
import type { ConversionRow, RowView } from '@/server/conversions/service';
import type { Row } from '@/ui/conversions/model/row';

/** A row as its screen has it. */
export function rowOf(row: RowView, conversion: ConversionRow, shelves: ReadonlyMap<string, string>): Row {
  const { source, outcome } = row;
  const shelf = conversion.shelf_id && !row.again ? shelves.get(conversion.shelf_id) : undefined;
  return {
    place: row.place,
    source: {
      itemId: source.item_id,
      title: source.title,
      kind: source.kind,
      number: source.number,
      selvedge: source.selvedge,
    },
    name: row.name,
    clashes: row.clashes,
    named: row.again !== null || gives(row.by) === null,
    shelf: shelf ?? source.shelf,
    excluded: row.excluded,
    status: row.status,
    recipe: row.by,
    own: row.recipe !== null && !conversion.again,
    outcome: outcome && {
      said: outcome.said,
      carried: outcome.carried,
      approximated: outcome.approximated,
      left: outcome.left,
      unknown: outcome.unknown,
      error: outcome.error,
      changes: outcome.changes
        ? { color: outcome.changes.color, settings: outcome.changes.settings.map(({ setting }) => setting) }
        : null,
    },
    problem: row.problem,
    made:
      row.made_version_id && row.made_item_id
        ? { itemId: row.made_item_id, versionId: row.made_version_id, status: row.made_status ?? '' }
        : null,
  };
}
