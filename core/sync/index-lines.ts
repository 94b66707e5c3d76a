/** An editor's index of files as lines: entries are added and taken away by key, everything else stays byte for byte. */

const key = (line: string): string => line.trim().normalize('NFC').toLowerCase();

/** The text with the names at its end that it does not have yet, and which these were. */
export function addLines(text: string, names: readonly string[]): { text: string; added: string[] } {
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
