/** Whether a file begins as XML does, and as which. */
const RDF = 'http://www.w3.org/1999/02/22-rdf-syntax-ns#';

/** `start` is the file's beginning, a character a byte; a byte order mark before it is allowed. */
export const looksLikeXml = (start: string): boolean =>
  /^\s*(?:\u00ef\u00bb\u00bf)?<[?!a-zA-Z]/.test(start.slice(0, 200)) || start.includes('<?xpacket');

export const looksLikeXmp = (start: string): boolean => start.includes(RDF);
