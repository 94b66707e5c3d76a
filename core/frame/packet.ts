/** The XMP packet in a file, of whatever format, found by its marks (ISO 16684-1, annex on packet scanning): nothing is decoded. */

const BEGIN = '<?xpacket begin=';
const END = '<?xpacket end=';
const INSTRUCTION_END = '?>';
const ROOT_BEGIN = '<x:xmpmeta';
const ROOT_END = '</x:xmpmeta>';

const codes = (text: string): number[] => Array.from(text, (character) => character.charCodeAt(0));

/** Where a text begins at or behind a place, byte for byte; -1 where it does not. */
function find(bytes: Uint8Array, text: string, from = 0): number {
  const [first = 0, ...rest] = codes(text);
  for (let at = bytes.indexOf(first, from); at >= 0; at = bytes.indexOf(first, at + 1)) {
    if (rest.every((code, i) => bytes[at + 1 + i] === code)) return at;
  }
  return -1;
}

/** From the beginning of one mark to the end of another behind it; null where they are not there. */
function between(bytes: Uint8Array, begin: string, end: string): Uint8Array | null {
  const from = find(bytes, begin);
  const to = from < 0 ? -1 : find(bytes, end, from);
  return to < 0 ? null : bytes.slice(from, to + end.length);
}

/** The first packet of UTF-8 text, without its wrapper; null where there is none, or none that is whole. */
export function packetIn(bytes: Uint8Array): Uint8Array | null {
  const begin = find(bytes, BEGIN);
  if (begin < 0) return between(bytes, ROOT_BEGIN, ROOT_END);
  const from = find(bytes, INSTRUCTION_END, begin) + INSTRUCTION_END.length;
  const to = find(bytes, END, begin);
  return from < INSTRUCTION_END.length || to < from ? null : bytes.slice(from, to);
}
