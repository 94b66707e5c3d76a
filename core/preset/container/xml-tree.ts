/** What XMP and plain XML presets share: a document that was checked before it became a tree, and how it is written. */
import { DOMParser, XMLSerializer, type Document, type Element } from '@xmldom/xmldom';
import { decodeText } from '../../text';
import { strictParser } from '../../xml';
import { MAX_DEPTH, WHOLE, type OpenStep, type WrittenValue } from './open-preset';

/** A tree of a text that has no document type, is well formed, and is not nested deeper than anybody writes. */
export function treeOf(bytes: Uint8Array, what: string): Document {
  const text = decodeText(bytes, what);
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
  new TextEncoder().encode(`${new XMLSerializer().serializeToString(tree).trimEnd()}\n`);

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

/** One place where an attribute of a step stands: an XML attribute, or an element with text. */
export interface Property {
  name: string;
  text: string;
  set(value: WrittenValue): void;
  remove(): void;
}

/** A step whose attributes are properties that are found anew each time, since the tree is changed under it. */
export class TreeStep implements OpenStep {
  readonly where: string;
  constructor(
    readonly name: string,
    readonly source: Element,
    private readonly find: (element: Element) => Property[],
    private readonly make: (element: Element, name: string, value: WrittenValue) => void,
  ) {
    this.where = name === WHOLE ? 'the packet' : lineOf(source);
  }
  attributes(): Record<string, string> {
    return Object.fromEntries(this.find(this.source).map(({ name, text }) => [name, text]));
  }
  set(name: string, value: WrittenValue): void {
    const there = this.find(this.source).find((property) => property.name === name);
    if (there) there.set(value);
    else this.make(this.source, name, value);
  }
  remove(name: string): void {
    this.find(this.source)
      .filter((property) => property.name === name)
      .forEach((property) => property.remove());
  }
}
