/** Whether a file begins as JSON or as XML does, and as which. `start` is its beginning, a character a byte. */
const RDF = 'http://www.w3.org/1999/02/22-rdf-syntax-ns#';

/** An object; a byte order mark may stand before it. */
export const looksLikeJson = (start: string): boolean => /^\s*(?:\u00ef\u00bb\u00bf)?\{/.test(start);

/** A byte order mark may stand before it, and anything before a packet; but JSON that quotes a packet is none. */
export const looksLikeXml = (start: string): boolean =>
  /^\s*(?:\u00ef\u00bb\u00bf)?<[?!a-zA-Z]/.test(start.slice(0, 200)) ||
  (start.includes('<?xpacket') && !looksLikeJson(start));

export const looksLikeXmp = (start: string): boolean => start.includes(RDF);
