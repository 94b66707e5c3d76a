/** Lists of lines as editors and people write them: with or without a mark at their beginning, with either end of lines. */

const MARK = '\ufeff';

/** The text without the mark by which some programs say that it is UTF-8. */
export const withoutMark = (text: string): string => (text.startsWith(MARK) ? text.slice(1) : text);

/** Its lines; an end at the end of the text begins no other. */
export function linesOf(text: string): string[] {
  const lines = withoutMark(text).split(/\r?\n/);
  if (lines.at(-1) === '') lines.pop();
  return lines;
}

/** Lines as bytes, as the text that they take the place of was written. */
export function asLines(lines: readonly string[], before: string): Uint8Array {
  const end = before.includes('\r\n') ? '\r\n' : '\n';
  const mark = before.startsWith(MARK) ? MARK : '';
  return new TextEncoder().encode(mark + lines.map((line) => line + end).join(''));
}
