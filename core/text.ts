/** Bytes to text, for readers of text formats. */
import { Problem } from './problem';

const WINDOWS = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ';

/** The text of bytes that are UTF-8, with its byte order mark where it has one; null where they are none. */
export function utf8Text(bytes: Uint8Array): string | null {
  try {
    return new TextDecoder('utf-8', { fatal: true, ignoreBOM: true }).decode(bytes);
  } catch {
    return null;
  }
}

/** An older encoding by the name that a file gives it; null where nobody here knows that, or where it says Unicode and is none. */
function decoderNamed(label: string): TextDecoder | null {
  try {
    const decoder = new TextDecoder(label);
    return decoder.encoding.startsWith('utf') ? null : decoder;
  } catch {
    return null;
  }
}

function decodeOlder(bytes: Uint8Array, label: string): string {
  const decoder = decoderNamed(label) ?? new TextDecoder('windows-1252');
  const text = decoder.decode(bytes);
  // Node 20 decodes this as Latin-1, without the 27 signs that Windows has at 80…9F
  return decoder.encoding === 'windows-1252'
    ? text.replace(/[\u0080-\u009f]/g, (c) => WINDOWS[c.charCodeAt(0) - 0x80]!)
    : text;
}

/**
 * Decodes UTF-8, or else an older encoding; UTF-16 and binary content are refused with a remedy. A leading byte order mark is
 * dropped.
 * @param older its label (WHATWG Encoding), where the file itself names one
 */
export function decodeText(bytes: Uint8Array, what: string, older = 'windows-1252'): string {
  if ((bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff))
    throw new Problem(
      'text-utf16',
      `This ${what} is UTF-16 text; it has to be UTF-8 or plain ASCII.`,
      'byte 0',
      'Open it in a text editor and save it again as UTF-8.',
    );
  const zero = bytes.subarray(0, 4096).indexOf(0);
  if (zero >= 0)
    throw new Problem(
      zero < 4 && bytes.length % 2 === 0 && bytes[1] === 0 ? 'text-utf16' : 'text-binary',
      `This ${what} is not plain text: it holds a zero byte.`,
      `byte ${zero}`,
      'Ask the supplier for the file again, saved as UTF-8 text.',
    );
  return utf8Text(bytes)?.replace(/^\ufeff/, '') ?? decodeOlder(bytes, older);
}

/** The text in Windows-1252; null where that has no sign for a character. */
function windowsBytes(text: string): Uint8Array | null {
  const bytes = new Uint8Array(text.length);
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    const isLatin = code < 0x80 || (code >= 0xa0 && code <= 0xff);
    const above = isLatin ? 0 : WINDOWS.indexOf(text.charAt(i));
    if (above < 0) return null;
    bytes[i] = isLatin ? code : 0x80 + above;
  }
  return bytes;
}

/** The byte order mark that a text begins with; empty where it has none. */
export const markOf = (bytes: Uint8Array): string =>
  bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf ? '\ufeff' : '';

/**
 * The inverse of decodeText: the text as bytes, in the encoding of the file that it came from, with its byte order mark where
 * that has one. UTF-8 where Windows-1252 has no sign for a character.
 */
export function encodeText(text: string, from: Uint8Array): Uint8Array {
  const mark = markOf(from);
  const older = mark || utf8Text(from) !== null ? null : windowsBytes(text);
  return older ?? new TextEncoder().encode(mark + text);
}

/** Text safe inside XML content and attributes; characters that XML 1.0 forbids are dropped. */
export const escapeXml = (text: string): string =>
  text
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;');

/** A zero character, and halves of surrogate pairs that stand alone: no database and no JSON of ours can hold them. */
const UNSTORABLE = /\u0000|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;

/** The same with U+FFFD in the place of what cannot be stored, in text at any depth and in the names of fields. */
export function storable<T>(value: T): T {
  if (typeof value === 'string') return value.replace(UNSTORABLE, '\ufffd') as T;
  if (Array.isArray(value)) return value.map((one: unknown) => storable(one)) as T;
  if (value === null || typeof value !== 'object' || ArrayBuffer.isView(value) || value instanceof Date) return value;
  return Object.fromEntries(
    Object.entries(value).map(([name, field]) => [storable(name), storable<unknown>(field)]),
  ) as T;
}
