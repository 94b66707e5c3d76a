/** An answer as text for people: facts in two columns, lists as tables, numbers as they are. */

type Fields = Record<string, unknown>;

const MOST_WIDE = 60;

const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isPlain = (value: unknown): boolean => typeof value !== 'object' || value === null;
/** A list that reads well on one line. */
const isShort = (value: unknown): value is unknown[] => Array.isArray(value) && value.every(isPlain);

/** A value on one line. */
function inline(value: unknown): string {
  if (value === null || value === undefined || value === '') return '–';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string' || typeof value === 'number') return String(value);
  if (isShort(value)) return value.length ? value.map(inline).join(', ') : '–';
  if (isFields(value))
    return Object.entries(value)
      .map(([name, entry]) => `${name} ${inline(entry)}`)
      .join(', ');
  return JSON.stringify(value);
}

const cut = (text: string): string => (text.length > MOST_WIDE ? `${text.slice(0, MOST_WIDE - 1)}…` : text);

/** Columns as wide as their widest entry; the last is not filled up. */
function columns(rows: readonly (readonly string[])[]): string {
  const widths = (rows[0] ?? []).map((_, i) => Math.max(...rows.map((row) => (row[i] ?? '').length)));
  return rows
    .map((row) => row.map((cell, i) => (i === row.length - 1 ? cell : cell.padEnd(widths[i] ?? 0))).join('  '))
    .join('\n');
}

function table(list: readonly Fields[]): string {
  const names = [...new Set(list.flatMap((fields) => Object.keys(fields)))];
  const rows = list.map((fields) => names.map((name) => cut(inline(fields[name]))));
  return columns([names, ...rows]);
}

/** Facts, then what takes more than a line, each under its name. */
function facts(fields: Fields): string {
  const all = Object.entries(fields).filter(([, value]) => value !== undefined);
  const isLong = (value: unknown): boolean => Array.isArray(value) && value.length > 0 && !isShort(value);
  const isNested = (value: unknown): boolean => isFields(value) && inline(value).length > MOST_WIDE;
  const short = all.filter(([, value]) => !isLong(value) && !isNested(value));
  const long = all.filter(([, value]) => isLong(value) || isNested(value));
  const parts = short.length ? [columns(short.map(([name, value]) => [name, inline(value)]))] : [];
  for (const [name, value] of long) parts.push(`${name}\n${indented(told(value))}`);
  return parts.join('\n\n');
}

const indented = (text: string): string =>
  text
    .split('\n')
    .map((line) => (line ? `  ${line}` : line))
    .join('\n');

function told(value: unknown): string {
  if (Array.isArray(value) && value.length && value.every(isFields)) return table(value);
  if (Array.isArray(value) && value.length && value.every(isShort))
    return columns(value.map((row) => row.map((entry) => inline(entry))));
  if (isFields(value)) return facts(value);
  return inline(value);
}

/** The text ends with the end of a line. */
export const tell = (answer: unknown): string => (typeof answer === 'string' ? answer : `${told(answer)}\n`);
