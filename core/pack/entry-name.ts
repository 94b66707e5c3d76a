/** Names of ZIP entries: the format says UTF-8 or code page 437, and programs wrote whatever their system had. */

/** The upper half of code page 437 (ZIP application note, appendix D). */
const PAGE_437 =
  'ÇüéâäàåçêëèïîìÄÅÉæÆôöòûùÿÖÜ¢£¥₧ƒáíóúñÑªº¿⌐¬½¼¡«»░▒▓│┤╡╢╖╕╣║╗╝╜╛┐└┴┬├─┼╞╟╚╔╩╦╠═╬╧╨╤╥╙╘╒╓╫╪┘┌█▄▌▐▀αßΓπΣσµτΦΘΩδ∞φε∩≡±≥≤⌠⌡÷≈°∙·√ⁿ²■\u00a0';

const utf8 = new TextDecoder('utf-8', { fatal: true });
const shiftJis = new TextDecoder('shift_jis', { fatal: true });

const tried = (decoder: TextDecoder, raw: Uint8Array): string | null => {
  try {
    return decoder.decode(raw);
  } catch {
    return null;
  }
};

/**
 * Japanese text has kana, or several kanji in a row. A European name read as Shift-JIS has at most single kanji, each where
 * a letter with an accent stood.
 */
const isJapanese = (text: string): boolean => /[\u3041-\u309f\u30a1-\u30fe]|[\u4e00-\u9fff々]{2}/.test(text);

/** The name that an entry's bytes mean: UTF-8 where they are that, Shift-JIS where that gives Japanese, else code page 437. */
export function entryName(raw: Uint8Array): string {
  const plain = tried(utf8, raw);
  if (plain !== null) return plain;
  const japanese = tried(shiftJis, raw);
  if (japanese !== null && isJapanese(japanese)) return japanese;
  return Array.from(raw, (byte) => (byte < 128 ? String.fromCharCode(byte) : PAGE_437[byte - 128]!)).join('');
}
