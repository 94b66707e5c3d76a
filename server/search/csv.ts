/** A search as CSV: up to 10,000 rows. */
import { csvOf } from '@/core/csv';
import type { Person } from '../people/roles';
import { searchItems, type Search } from './service';

export async function itemsCsv(person: Person, search: Search): Promise<string> {
  const out: unknown[][] = [
    [
      'title',
      'kind',
      'version',
      'status',
      'headings',
      'shelf',
      'supplier',
      'licence',
      'cameras',
      'tags',
      'points',
      'stations',
      'format',
      'made',
    ],
  ];
  for (let at = 0; at < 10_000; at += 500) {
    const { rows } = await searchItems(person, search, 500, at);
    for (const spine of rows)
      out.push([
        spine.title,
        spine.kind,
        spine.number,
        spine.status,
        spine.headings,
        spine.shelf,
        spine.supplier,
        spine.licence ?? '',
        spine.cameras,
        spine.tags,
        spine.points ?? '',
        spine.stations,
        spine.format,
        spine.created_at.toISOString(),
      ]);
    if (rows.length < 500) break;
  }
  return csvOf(out);
}
