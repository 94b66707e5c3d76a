/** Rows as CSV (RFC 4180), with a byte order mark for spreadsheets. Cells that a spreadsheet would run as a formula are led by an apostrophe. */
const cell = (v: unknown): string => {
  let s = Array.isArray(v) ? v.join(' / ') : String(v ?? '');
  if (/^[=+\-@\t\r]/.test(s)) s = `'${s}`;
  return /[",\r\n]/.test(s) ? `"${s.replace(/"/g, '""')}"` : s;
};
export const csvOf = (rows: readonly (readonly unknown[])[]): string =>
  `\ufeff${rows.map((r) => r.map(cell).join(',')).join('\r\n')}\r\n`;
