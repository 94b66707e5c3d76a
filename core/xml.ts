/** The root of an XML file: enough to tell what it is. A DOCTYPE, hence any entity of its own, is refused. */
import { SaxesParser } from 'saxes';
import { Problem } from './problem';
import { decodeText } from './text';

export interface XmlRoot {
  name: string;
  uri: string;
  attributes: Record<string, string>;
  /** names of the root's children, in order, at most 200 */ children: string[];
  elements: number;
}

const MAX_DEPTH = 60;

const DECLARED = /^(<\?xml\s[^>]*?\sencoding\s*=\s*["'])([A-Za-z][\w.-]*)/;

/** XML as text: UTF-8, or else the encoding that its declaration names (XML 1.0, 4.3.3), or else Windows-1252. */
export function decodeXml(bytes: Uint8Array, what: string): string {
  const head = String.fromCharCode(...bytes.subarray(0, 200));
  return decodeText(bytes, what, DECLARED.exec(head)?.[2]);
}

const isUtf8 = (label: string): boolean => /^utf-?8$/i.test(label);

/** The bytes of XML as UTF-8, which its declaration then names, whatever it named before. */
export const encodeXml = (text: string, mark = ''): Uint8Array =>
  new TextEncoder().encode(
    mark + text.replace(DECLARED, (whole, before: string, label: string) => (isUtf8(label) ? whole : `${before}UTF-8`)),
  );

/** A parser that refuses document types, depth and errors with their place. */
export function strictParser(what: string): {
  parser: SaxesParser<{ xmlns: true; position: true }>;
  fault: (code: string, message: string, remedy: string) => Problem;
} {
  const parser = new SaxesParser({ xmlns: true, position: true });
  const fault = (code: string, message: string, remedy: string): Problem =>
    new Problem(code, message, `line ${parser.line}, column ${parser.column}`, remedy);
  parser.on('doctype', () => {
    throw fault(
      'xml-doctype',
      `This ${what} declares a document type, which could define entities; none are read.`,
      'Remove the DOCTYPE, or ask the supplier for a plain file.',
    );
  });
  parser.on('error', (error) => {
    throw fault(
      /entity/i.test(error.message) ? 'xml-entity' : 'xml-malformed',
      `The XML cannot be read: ${error.message.replace(/^\d+:\d+:\s*/, '').slice(0, 160)}`,
      'Ask the supplier for the file again, or export it anew from the program that made it.',
    );
  });
  return { parser, fault };
}

export function xmlRoot(bytes: Uint8Array, what = 'XML file'): XmlRoot {
  const { parser, fault } = strictParser(what);
  let root: XmlRoot | null = null;
  let depth = 0;
  parser.on('opentag', (tag) => {
    if (++depth > MAX_DEPTH)
      throw fault(
        'xml-depth',
        `Elements are nested more than ${MAX_DEPTH} deep.`,
        'Ask the supplier for a plain file.',
      );
    root ??= {
      name: tag.local,
      uri: tag.uri,
      attributes: Object.fromEntries(Object.values(tag.attributes).map((a) => [a.name, a.value])),
      children: [],
      elements: 0,
    };
    root.elements++;
    if (depth === 2 && root.children.length < 200) root.children.push(tag.local);
  });
  parser.on('closetag', () => {
    depth--;
  });
  parser.write(decodeXml(bytes, what)).close();
  if (!root)
    throw new Problem(
      'xml-malformed',
      'There is no element in this file.',
      'line 1',
      'Ask the supplier for the file again.',
    );
  return root;
}
