/**
 * An XMP packet (ISO 16684-1). Its steps are the members of an rdf:Seq that carry a property which names them (`step`),
 * with their other properties as attributes, be they written as XML attributes or as elements; a structure of the packet
 * is a step under its property's name; and what stands on the packet itself belongs to the document. A list of texts and
 * the default of an alternative by language are attributes too. A DOCTYPE, hence any entity of its own, is refused.
 */
import type { Attr, Document, Element } from '@xmldom/xmldom';
import { CONTACT_NAMESPACE_END, contactProperty, identityIn, type Identity } from '../../item/identity';
import { Problem } from '../../problem';
import {
  LIST_SEPARATOR,
  MAX_STEPS,
  tooManySteps,
  WHOLE,
  type About,
  type Form,
  type OpenPreset,
  type WrittenValue,
} from './open-preset';
import { bytesOf, elementsOf, lineOf, putInto, takeOut, textIn, treeOf } from '../../xml-tree';
import { TreeStep, type Property } from './tree-step';

const RDF = 'http://www.w3.org/1999/02/22-rdf-syntax-ns#';
const DC = 'http://purl.org/dc/elements/1.1/';
const XML = 'http://www.w3.org/XML/1998/namespace';
const XMLNS = 'http://www.w3.org/2000/xmlns/';
/** The property that names a step, where a descriptor names no other. */
const STEP = 'step';

const isRdf = (element: Element, name: string): boolean => element.namespaceURI === RDF && element.localName === name;
/** Whether a property is the address of the rights, of the schema of rights management (ISO 16684-1, 8.5), whose namespace ends so. */
const isWebStatement = (node: Element | Attr): boolean =>
  node.localName === 'WebStatement' && !!node.namespaceURI?.endsWith('/rights/');
const isContact = (node: Element | Attr): boolean =>
  node.localName === 'CreatorContactInfo' && !!node.namespaceURI?.endsWith(CONTACT_NAMESPACE_END);
const isForeign = (node: Element | Attr): boolean =>
  node.namespaceURI === DC || node.namespaceURI === RDF || isWebStatement(node) || isContact(node);

/** Whether an attribute is a property of the packet, and no part of XML or RDF. */
const isProperty = (attribute: Attr): boolean =>
  !!attribute.namespaceURI && ![XML, XMLNS].includes(attribute.namespaceURI) && !isForeign(attribute);

const nameOf = (element: Element): string => element.localName ?? element.tagName;

/** The list that an element holds: ordered, unordered, or of alternatives. */
const listOf = (element: Element): Element | undefined =>
  elementsOf(element).find((child) => ['Seq', 'Bag', 'Alt'].some((kind) => isRdf(child, kind)));

/** The texts of a list; null where a member holds more than text. Of alternatives, the default is the one. */
function textsOf(list: Element): string[] | null {
  const members = elementsOf(list);
  if (members.some((member) => elementsOf(member).length || [...member.attributes].some(isProperty))) return null;
  if (!isRdf(list, 'Alt')) return members.map(textIn);
  const standard = members.find((member) => member.getAttributeNS(XML, 'lang') === 'x-default') ?? members[0];
  return standard ? [textIn(standard)] : null;
}

/** A structure: its properties stand in the element itself, or in a description within it. */
function structureIn(element: Element): Element | null {
  if (element.getAttributeNS(RDF, 'parseType') === 'Resource') return element;
  const description = elementsOf(element).find((child) => isRdf(child, 'Description'));
  if (description) return description;
  return [...element.attributes].some(isProperty) && !elementsOf(element).length && !textIn(element) ? element : null;
}

/** Writes the members of a list anew. */
function setList(list: Element, texts: string[]): void {
  const tree = list.ownerDocument!;
  while (list.firstChild) list.removeChild(list.firstChild);
  for (const text of texts) {
    const member = tree.createElementNS(RDF, 'rdf:li');
    if (isRdf(list, 'Alt')) member.setAttributeNS(XML, 'xml:lang', 'x-default');
    member.appendChild(tree.createTextNode(text));
    list.appendChild(member);
  }
}

/** An element that holds a text or a list of texts, as a property; null for structures and lists of more. */
function elementProperty(element: Element): Property | null {
  const remove = () => takeOut(element);
  const list = listOf(element);
  if (list) {
    const texts = textsOf(list);
    if (!texts) return null;
    const set = ({ text }: WrittenValue) => setList(list, text.split(LIST_SEPARATOR));
    return { name: nameOf(element), text: texts.join(LIST_SEPARATOR), set, remove };
  }
  if (structureIn(element) || elementsOf(element).length) return null;
  const set = ({ text }: WrittenValue) => {
    element.textContent = text;
  };
  return { name: nameOf(element), text: textIn(element), set, remove };
}

function propertiesOf(element: Element): Property[] {
  const holder = structureIn(element) ?? element;
  const attributes = [...holder.attributes].filter(isProperty).map((attribute) => ({
    name: attribute.localName ?? attribute.name,
    text: attribute.value,
    set: ({ text }: WrittenValue) => {
      attribute.value = text;
    },
    remove: () => holder.removeAttributeNode(attribute),
  }));
  const elements = elementsOf(holder).filter((child) => !isForeign(child));
  return [...attributes, ...elements.flatMap((child) => elementProperty(child) ?? [])];
}

/** All that a creator's contact says, one after the other. */
function contactIn(element: Element): string {
  const texts = propertiesOf(element).map(({ text }) => text);
  return texts.filter(Boolean).join(', ');
}

/** Reads what the packet says of itself, in the Dublin Core, the schema of rights management and that of contacts. */
function aboutOf(descriptions: readonly Element[]): About {
  const said: Partial<Record<keyof Identity, string>> = {};
  const about: About = { title: '', headings: [], identity: {} };
  for (const description of descriptions) {
    const web = [...description.attributes].find(isWebStatement)?.value;
    if (web) said.webStatement ??= web;
    for (const element of elementsOf(description)) {
      if (isWebStatement(element)) said.webStatement ??= textIn(element);
      if (isContact(element)) said.contact ??= contactIn(element);
      if (element.namespaceURI !== DC) continue;
      const list = listOf(element);
      const texts = list ? (textsOf(list) ?? []) : [textIn(element)];
      const [first = ''] = texts;
      if (element.localName === 'title') about.title ||= first;
      else if (element.localName === 'subject') about.headings.push(...texts);
      else if (['description', 'creator', 'rights'].includes(nameOf(element)))
        said[nameOf(element) as keyof Identity] ??= first;
    }
  }
  about.identity = identityIn(said);
  return about;
}

/** The kind of list in which Dublin Core keeps each of its properties. */
const coreLists = { title: 'Alt', subject: 'Bag', description: 'Alt', creator: 'Seq', rights: 'Alt' } as const;

function sayInCore(description: Element, name: keyof typeof coreLists, texts: string[]): void {
  const tree = description.ownerDocument!;
  const there = elementsOf(description).find((one) => one.namespaceURI === DC && one.localName === name);
  if (there) takeOut(there);
  if (!texts.length) return;
  const element = tree.createElementNS(DC, `dc:${name}`);
  const list = tree.createElementNS(RDF, `rdf:${coreLists[name]}`);
  element.appendChild(list);
  setList(list, texts);
  putInto(description, element);
}

function sayOf(description: Element, { title, headings, identity }: Partial<About>): void {
  if (title !== undefined) sayInCore(description, 'title', [title]);
  if (headings) sayInCore(description, 'subject', headings);
  for (const part of ['description', 'creator', 'rights'] as const)
    if (identity?.[part]) sayInCore(description, part, [identity[part]]);
  const rights = declaredOn(description).find(({ uri }) => uri.endsWith('/rights/'));
  if (identity?.webStatement && rights)
    description.setAttributeNS(rights.uri, `${rights.prefix}:WebStatement`, identity.webStatement);
  if (identity?.contact) sayContact(description, identity.contact);
}

/** There is a place for it in packets that declare the schema of contacts. */
function sayContact(description: Element, contact: string): void {
  const schema = declaredOn(description).find(({ uri }) => uri.endsWith(CONTACT_NAMESPACE_END));
  if (!schema) return;
  elementsOf(description).filter(isContact).forEach(takeOut);
  const tree = description.ownerDocument!;
  const element = tree.createElementNS(schema.uri, `${schema.prefix}:CreatorContactInfo`);
  element.setAttributeNS(RDF, 'rdf:parseType', 'Resource');
  const property = tree.createElementNS(schema.uri, `${schema.prefix}:${contactProperty(contact)}`);
  property.appendChild(tree.createTextNode(contact));
  element.appendChild(property);
  putInto(description, element);
}

/** The namespaces that a packet declares for the properties of a description, with their prefixes. */
const declaredOn = (description: Element): { prefix: string; uri: string }[] =>
  [...description.attributes, ...((description.parentNode as Element | null)?.attributes ?? [])].flatMap(
    ({ prefix, localName, value }) =>
      prefix === 'xmlns' && ![RDF, DC].includes(value) ? [{ prefix: localName!, uri: value }] : [],
  );

/** Every element below, in the order of the text. */
const descendants = (element: Element): Element[] =>
  elementsOf(element).flatMap((child) => [child, ...descendants(child)]);

function namespacesOf(tree: Document): string[] {
  const found = new Set<string>();
  for (const element of [tree.documentElement!, ...descendants(tree.documentElement!)]) {
    if (element.namespaceURI && ![RDF, DC].includes(element.namespaceURI)) found.add(element.namespaceURI);
    for (const attribute of element.attributes) if (isProperty(attribute)) found.add(attribute.namespaceURI!);
  }
  return [...found];
}

const isInCore = (element: Element): boolean => {
  for (let up = element.parentNode as Element | null; up?.nodeType === 1; up = up.parentNode as Element | null)
    if (up.namespaceURI === DC) return true;
  return false;
};

/** A packet that is being read or written in one language. */
class Packet {
  readonly tree: Document;
  readonly descriptions: Element[];
  readonly #form: Form;
  constructor(bytes: Uint8Array, form: Form) {
    this.tree = treeOf(bytes, 'XMP packet');
    this.#form = form;
    const all = [this.tree.documentElement!, ...descendants(this.tree.documentElement!)];
    this.descriptions = all.filter(
      (element) => isRdf(element, 'Description') && isRdf(element.parentNode as Element, 'RDF'),
    );
  }

  get #stepName(): string {
    return this.#form.step ?? STEP;
  }

  step(name: string, element: Element): TreeStep {
    const isMember = isRdf(element, 'li');
    const find = (one: Element) =>
      propertiesOf(one).filter((property) => !isMember || property.name !== this.#stepName);
    return new TreeStep(name, element, find, (one, attribute, value) => this.#make(one, attribute, value));
  }

  steps(): TreeStep[] {
    const out = this.descriptions.map((one) => this.step(WHOLE, one));
    for (const description of this.descriptions)
      for (const element of elementsOf(description))
        if (!isForeign(element) && !listOf(element) && structureIn(element))
          out.push(this.step(nameOf(element), element));
    for (const member of this.#members()) {
      const named = propertiesOf(member).find((property) => property.name === this.#stepName)?.text;
      if (named && out.push(this.step(named, member)) > MAX_STEPS) throw tooManySteps(lineOf(member));
    }
    return out;
  }

  /** Members of the lists of the packet that are no plain texts, but for those of Dublin Core. */
  #members(): Element[] {
    return descendants(this.tree.documentElement!).filter((one) => isRdf(one, 'li') && !isInCore(one));
  }

  add(name: string): TreeStep {
    const [description] = this.descriptions;
    if (!description) throw this.#noPlace('the template holds no description of a packet');
    if (name === WHOLE) return this.step(WHOLE, description);
    if (!this.#form.sequence) {
      const structure = this.#element(name);
      structure.setAttributeNS(RDF, 'rdf:parseType', 'Resource');
      putInto(description, structure);
      return this.step(name, structure);
    }
    const holder = descendants(description).find((one) => one.localName === this.#form.sequence);
    const sequence = holder && listOf(holder);
    if (!sequence) throw this.#noPlace(`the template holds no sequence named ${this.#form.sequence}`);
    const member = this.tree.createElementNS(RDF, 'rdf:li');
    putInto(sequence, member);
    const step = this.step(name, member);
    this.#make(member, this.#stepName, { text: name, json: name });
    return step;
  }

  #noPlace(reason: string): Problem {
    return new Problem(
      'preset-template',
      `The descriptor's empty preset cannot be written into: ${reason}.`,
      'presets.template',
      'Correct the template in the editor’s descriptor.',
    );
  }

  /** A new element in the language's namespace, with the prefix that the template gives it. */
  #element(name: string): Element {
    const { uri, prefix } = this.#language();
    return this.tree.createElementNS(uri, `${prefix}:${name}`);
  }

  #language(): { uri: string; prefix: string } {
    const own = this.descriptions.flatMap(declaredOn).find(({ uri }) => !uri.endsWith('/rights/'));
    const uri = this.#form.namespace ?? own?.uri ?? '';
    const prefix = this.descriptions.map((one) => one.lookupPrefix(uri)).find(Boolean);
    if (!uri || !prefix) throw this.#noPlace('it declares no prefix for the namespace of the properties');
    return { uri, prefix };
  }

  #make(element: Element, name: string, value: WrittenValue): void {
    const holder = structureIn(element) ?? element;
    const { uri, prefix } = this.#language();
    const isList = value.text.includes(LIST_SEPARATOR);
    if (!isList && this.#form.properties !== 'elements') {
      // a structure without elements keeps its properties as attributes of itself
      if (holder.getAttributeNS(RDF, 'parseType') === 'Resource' && !elementsOf(holder).length)
        holder.removeAttributeNS(RDF, 'parseType');
      if (holder.getAttributeNS(RDF, 'parseType') !== 'Resource') {
        holder.setAttributeNS(uri, `${prefix}:${name}`, value.text);
        return;
      }
    }
    if (isRdf(holder, 'li') && !isList) holder.setAttributeNS(RDF, 'rdf:parseType', 'Resource');
    const child = this.#element(name);
    if (isList) {
      const list = this.tree.createElementNS(RDF, 'rdf:Seq');
      child.appendChild(list);
      setList(list, value.text.split(LIST_SEPARATOR));
    } else child.appendChild(this.tree.createTextNode(value.text));
    putInto(holder, child);
  }
}

export function openXmp(bytes: Uint8Array, form: Form = {}): OpenPreset {
  const packet = new Packet(bytes, form);
  return {
    container: 'xmp',
    namespaces: namespacesOf(packet.tree),
    about: aboutOf(packet.descriptions),
    steps: () => packet.steps(),
    add: (name) => packet.add(name),
    drop: (step) => {
      if (step.name !== WHOLE) takeOut((step as TreeStep).source);
    },
    say: (about) => {
      const [description] = packet.descriptions;
      if (description) sayOf(description, about);
    },
    bytes: () => bytesOf(packet.tree),
  };
}

/** A number is no name of a step. */
const isName = (text: string): boolean => text !== '' && !Number.isFinite(Number(text));

/** The property that names the steps: the usual one, else the first that every member has a word for; null where none has. */
function stepNameIn(members: readonly Element[]): string | null {
  const [first, ...others] = members.map(
    (member) => new Map(propertiesOf(member).map(({ name, text }) => [name, text])),
  );
  const names = [...(first ?? [])].filter(([, text]) => isName(text)).map(([name]) => name);
  const shared = names.filter((name) => others.every((properties) => isName(properties.get(name) ?? '')));
  return shared.includes(STEP) ? STEP : (shared[0] ?? null);
}

/** The namespace that most properties of an element are in, and whether more of them are elements than attributes. */
function writingOf(elements: readonly Element[]): { namespace: string | undefined; isElements: boolean } {
  const holders = elements.map((element) => structureIn(element) ?? element);
  const attributes = holders.flatMap((holder) => [...holder.attributes].filter(isProperty));
  const children = holders.flatMap((holder) => elementsOf(holder).filter((child) => !isForeign(child)));
  const counts = new Map<string, number>();
  for (const { namespaceURI } of [...attributes, ...children])
    if (namespaceURI) counts.set(namespaceURI, (counts.get(namespaceURI) ?? 0) + 1);
  const [most] = [...counts].sort(([, one], [, other]) => other - one);
  return { namespace: most?.[0], isElements: children.length > attributes.length };
}

/**
 * How a packet of an unknown language is written, as far as it can be seen: the sequence that holds its steps, the property
 * that names each of them, their namespace, and whether properties are attributes or elements. What is usual is left out.
 */
export function formOfPacket(bytes: Uint8Array): Form {
  const { descriptions } = new Packet(bytes, {});
  const lists = descriptions
    .flatMap(descendants)
    .filter((element) => !isForeign(element) && !isInCore(element))
    .flatMap((element) => {
      const list = listOf(element);
      return list && !textsOf(list) ? [{ name: nameOf(element), members: elementsOf(list) }] : [];
    });
  const steps = lists.find(({ members }) => stepNameIn(members) !== null);
  const step = steps && stepNameIn(steps.members);
  const { namespace, isElements } = writingOf(steps?.members ?? descriptions);
  return {
    ...(steps ? { sequence: steps.name } : {}),
    ...(step && step !== STEP ? { step } : {}),
    ...(isElements ? { properties: 'elements' as const } : {}),
    ...(namespace ? { namespace } : {}),
  };
}
