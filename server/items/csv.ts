/** A search as CSV: up to 10,000 rows. */
import { csvOf } from '../csv';
import type { Person } from '../people/roles';
import { searchItems, type Search } from './search';

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
    for (const r of rows)
      out.push([
        r.title,
        r.kind,
        r.number,
        r.status,
        r.headings,
        r.shelf,
        r.supplier,
        r.licence ?? '',
        r.cameras,
        r.tags,
        r.points ?? '',
        r.stations,
        r.format,
        r.created_at.toISOString(),
      ]);
    if (rows.length < 500) break;
  }
  return csvOf(out);
}
