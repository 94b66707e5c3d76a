/** A search as CSV (RFC 4180): up to 10,000 rows. Cells that a spreadsheet would run as a formula are led by an apostrophe. */
import type { Person } from '../people/roles';
import { searchItems, type Search } from './search';

const cell = (v: unknown): string => { let s = Array.isArray(v) ? v.join(' / ') : String(v ?? ''); if (/^[=+\-@\t\r]/.test(s)) s = `'${s}`; return /[",\r\n]/.test(s) ? `"${s.replace(/"/g, '""')}"` : s; };

export async function itemsCsv(person: Person, search: Search): Promise<string> {
  const lines = [['title', 'kind', 'version', 'status', 'headings', 'shelf', 'supplier', 'licence', 'cameras', 'tags', 'points', 'stations', 'format', 'made'].join(',')];
  for (let at = 0; at < 10_000; at += 500) {
    const { rows } = await searchItems(person, search, 500, at);
    for (const r of rows) lines.push([r.title, r.kind, r.number, r.status, r.headings, r.shelf, r.supplier, r.licence ?? '', r.cameras, r.tags, r.points ?? '', r.stations, r.format, r.created_at.toISOString()].map(cell).join(','));
    if (rows.length < 500) break;
  }
  return `\ufeff${lines.join('\r\n')}\r\n`;
}
