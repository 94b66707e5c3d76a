/** An editor's index of files as lines: entries are added and taken away by key, everything else stays byte for byte. */
import { hasUnseen } from '../editor/own-folder';
import { Problem } from '../problem';

/** Why an index that lies at a station, and that its agent did not tell, is not changed. */
export const UNREADABLE = 'is no UTF-8 text, or too long to be read there, and stays as it is';

/** A name that would be two lines, or none that is seen, cannot be an entry. */
function refuseUnfit(names: readonly string[]): void {
  const bad = names.find((name) => hasUnseen(name) || name.trim() === '');
  if (bad === undefined) return;
  throw new Problem(
    'index-name',
    'A file name with line breaks or signs that are not seen cannot stand in an editor’s index.',
    JSON.stringify(bad),
    'Give the item another title.',
  );
}

const key = (line: string): string => line.trim().normalize('NFC').toLowerCase();

/** The text with the names at its end that it does not have yet, and which these were. */
export function addLines(text: string, names: readonly string[]): { text: string; added: string[] } {
  refuseUnfit(names);
  const has = new Set(text.split(/\r?\n/).map(key));
  const end = text.includes('\r\n') ? '\r\n' : '\n';
  const added = names.filter((n) => !has.has(key(n)) && has.add(key(n)));
  if (!added.length) return { text, added };
  return { text: (text && !text.endsWith('\n') ? text + end : text) + added.map((n) => n + end).join(''), added };
}

/** The text without the names' lines. */
export function removeLines(text: string, names: readonly string[]): string {
  const gone = new Set(names.map(key));
  return (text.match(/[^\n]*\n|[^\n]+$/g) ?? []).filter((l) => !gone.has(key(l))).join('');
}
