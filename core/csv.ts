/**
 * Rows as CSV (RFC 4180), with a byte order mark for spreadsheets. Cells that a spreadsheet would run as a formula are led by an
 * apostrophe; that and the mark are why these few lines are our own.
 */
const cell = (value: unknown): string => {
  let text = Array.isArray(value) ? value.join(' / ') : String(value ?? '');
  if (/^[=+\-@\t\r]/.test(text)) text = `'${text}`;
  return /[",\r\n]/.test(text) ? `"${text.replace(/"/g, '""')}"` : text;
};
export const csvOf = (rows: readonly (readonly unknown[])[]): string =>
  `\ufeff${rows.map((r) => r.map(cell).join(',')).join('\r\n')}\r\n`;
