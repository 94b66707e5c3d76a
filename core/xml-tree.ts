/** XML as a tree: a document that is checked before it becomes one, changed in its place, and written. */
import { DOMParser, XMLSerializer, type Document, type Element } from '@xmldom/xmldom';
import { decodeXml, encodeXml, strictParser } from './xml';

const MAX_DEPTH = 40;

/** A tree of a text that has no document type, is well formed, and is not nested deeper than anybody writes. */
export function treeOf(bytes: Uint8Array, what: string): Document {
  const text = decodeXml(bytes, what);
  const { parser, fault } = strictParser(what);
  let depth = 0;
  parser.on('opentag', () => {
    depth += 1;
    if (depth > MAX_DEPTH)
      throw fault(
        'xml-depth',
        `Elements are nested more than ${MAX_DEPTH} deep.`,
        'Ask the supplier for a plain file.',
      );
  });
  parser.on('closetag', () => {
    depth -= 1;
  });
  parser.write(text).close();
  return new DOMParser().parseFromString(text, 'text/xml');
}

export const bytesOf = (tree: Document): Uint8Array =>
  encodeXml(`${new XMLSerializer().serializeToString(tree).trimEnd()}\n`);

export const elementsOf = (parent: Element): Element[] =>
  [...parent.childNodes].filter((node): node is Element => node.nodeType === 1);

export const textIn = (element: Element): string => (element.textContent ?? '').trim();

/** Takes an element out with the space before it, so that no empty line stays behind. */
export function takeOut(element: Element): void {
  const before = element.previousSibling;
  if (before?.nodeType === 3 && !before.nodeValue?.trim()) before.parentNode?.removeChild(before);
  element.parentNode?.removeChild(element);
}

/** Puts an element last, on a line of its own, one step further in than its parent. */
export function putInto(parent: Element, child: Element): void {
  const tree = parent.ownerDocument!;
  const outer = parent.previousSibling?.nodeType === 3 ? (parent.previousSibling.nodeValue ?? '') : '';
  const indent = `\n${/[^\n]*$/.exec(outer)?.[0] ?? ''}`;
  const last = parent.lastChild;
  if (last?.nodeType === 3 && !last.nodeValue?.trim()) parent.removeChild(last);
  parent.appendChild(tree.createTextNode(`${indent} `));
  parent.appendChild(child);
  parent.appendChild(tree.createTextNode(indent));
}

export const lineOf = (element: Element): string =>
  typeof element.lineNumber === 'number' && element.lineNumber > 0 ? `line ${element.lineNumber}` : 'written';
