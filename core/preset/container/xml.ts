/**
 * A plain XML list of steps: the root's attributes are the first step, under the root's name; each child is a step with
 * its attributes, and with its text as "text()". Deeper elements are steps too, under "parent/child".
 */
import type { Attr, Element } from '@xmldom/xmldom';
import { emptyAbout, MAX_STEPS, TEXT, tooManySteps, type OpenPreset, type WrittenValue } from './open-preset';
import { bytesOf, elementsOf, lineOf, putInto, takeOut, textIn, treeOf } from '../../xml-tree';
import { TreeStep, type Property } from './tree-step';

const isOwn = ({ prefix, name }: Attr): boolean => prefix !== 'xmlns' && name !== 'xmlns';

function propertiesOf(element: Element): Property[] {
  const own = [...element.attributes].filter(isOwn).map((attribute) => ({
    name: attribute.localName ?? attribute.name,
    text: attribute.value,
    set: ({ text }: WrittenValue) => {
      attribute.value = text;
    },
    remove: () => element.removeAttributeNode(attribute),
  }));
  const text = elementsOf(element).length ? '' : textIn(element);
  if (!text) return own;
  const setText = (value: string) => {
    element.textContent = value;
  };
  return [...own, { name: TEXT, text, set: (value) => setText(value.text), remove: () => setText('') }];
}

function make(element: Element, name: string, { text }: WrittenValue): void {
  if (name === TEXT) element.textContent = text;
  else element.setAttribute(name, text);
}

/** Every element, under its name: the root's own, and its path below the root. */
function walk(element: Element, path: string[], into: TreeStep[]): TreeStep[] {
  const name = path.length ? path.join('/') : (element.localName ?? element.tagName);
  if (into.push(new TreeStep(name, element, propertiesOf, make)) > MAX_STEPS) throw tooManySteps(lineOf(element));
  for (const child of elementsOf(element)) walk(child, [...path, child.localName ?? child.tagName], into);
  return into;
}

/** A new element of that path; those above it are made where they are missing. */
function addAt(root: Element, path: string[]): Element {
  const [name, ...rest] = path as [string, ...string[]];
  const there = elementsOf(root).findLast((child) => child.localName === name);
  if (there && rest.length) return addAt(there, rest);
  const child = root.ownerDocument!.createElementNS(root.namespaceURI, root.prefix ? `${root.prefix}:${name}` : name);
  putInto(root, child);
  return rest.length ? addAt(child, rest) : child;
}

function namespacesIn(element: Element, found = new Set<string>()): Set<string> {
  if (element.namespaceURI) found.add(element.namespaceURI);
  for (const child of elementsOf(element)) namespacesIn(child, found);
  return found;
}

export function openXml(bytes: Uint8Array): OpenPreset {
  const tree = treeOf(bytes, 'preset');
  const root = tree.documentElement!;
  return {
    container: 'xml',
    namespaces: [...namespacesIn(root)],
    about: emptyAbout(),
    steps: () => walk(root, [], []),
    add: (name) => new TreeStep(name, addAt(root, name.split('/')), propertiesOf, make),
    drop: (step) => takeOut((step as TreeStep).source),
    say() {
      // the language itself says where titles stand
    },
    bytes: () => bytesOf(tree),
  };
}
