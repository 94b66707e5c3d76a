/** Licences and read-me files as text to be read. */

const texts = ['txt', 'md', 'csv', 'json', 'xml', 'html', 'htm'];
/** Whether a paper of a format is plain text. */
export const isPlainText = (format: string): boolean => texts.includes(format);

const MOST_CHARACTERS = 400_000;

/** By its byte order mark; else UTF-8 where it is that, and Windows-1252 where it is not, which reads every byte. */
function decoded(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

/** The text of a paper by its format, lines ended by \n, cut after 400,000 characters; null for a format that is no plain text. */
export function paperText(bytes: Uint8Array, format: string): string | null {
  if (!isPlainText(format)) return null;
  return decoded(bytes).replace(/\r\n?/g, '\n').slice(0, MOST_CHARACTERS);
}
