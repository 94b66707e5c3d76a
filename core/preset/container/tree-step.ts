/** What XMP and plain XML presets share: steps that stand in a tree. */
import type { Element } from '@xmldom/xmldom';
import { lineOf } from '../../xml-tree';
import { WHOLE, type OpenStep, type WrittenValue } from './open-preset';

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
