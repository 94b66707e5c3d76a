/**
 * What every preset container comes down to: named steps with attributes, in order, and what the file says of itself.
 * A container (XMP, INI, XML, JSON) is opened into this shape, read, and changed in it; which step means which common
 * setting is data in an editor's descriptor, not code.
 */
import type { Identity } from '../../item/identity';
import { Problem } from '../../problem';

export const containers = ['xmp', 'ini', 'xml', 'json'] as const;
export type Container = (typeof containers)[number];

/** The step that stands for the document itself: what is said outside any named step. */
export const WHOLE = '.';
/** The attribute that stands for the text between an element's tags, as XPath calls it. */
export const TEXT = 'text()';
/** Between the members of a list of texts that one attribute holds. */
export const LIST_SEPARATOR = '\n';

export const MAX_STEPS = 2000;
export const MAX_DEPTH = 40;

export interface Step {
  name: string;
  attributes: Record<string, string>;
  where: string;
}

/** A value in both notations: as text, and as JSON has it. */
export interface WrittenValue {
  text: string;
  json: string | number | boolean | number[] | number[][] | string[];
}

/** A step of an open preset: what is set or removed is in the file's bytes from then on. */
export interface OpenStep {
  readonly name: string;
  readonly where: string;
  /** what the step is in the file: the same object whenever it is found again */ readonly source: object;
  attributes(): Record<string, string>;
  set(attribute: string, value: WrittenValue): void;
  remove(attribute: string): void;
}

/** What a preset says of itself, where its container has a place of its own for it. */
export interface About {
  title: string;
  headings: string[];
  identity: Partial<Identity>;
}

/** How a language writes its steps, where a container leaves a choice. */
export interface Form {
  /** XMP: the element whose sequence holds the steps; without, properties stand on the packet itself. */
  sequence?: string;
  /** XMP: the property of a member of the sequence that names its step. */
  step?: string;
  /** XMP, XML: whether properties are written as attributes (the default) or as elements. */
  properties?: 'attributes' | 'elements';
  /** XMP: the namespace in which properties are written; that by which the language is recognised without. */
  namespace?: string;
}

export interface OpenPreset {
  readonly container: Container;
  /** XML namespaces that properties of a packet are in */ readonly namespaces: readonly string[];
  readonly about: About;
  steps(): OpenStep[];
  add(name: string): OpenStep;
  drop(step: OpenStep): void;
  /** Says what is given, where the container has a place of its own; elsewhere a mapping's steps say it. */
  say(about: Partial<About>): void;
  bytes(): Uint8Array;
}

/** What is read of a preset. */
export interface StepDocument extends About {
  container: Container;
  namespaces: readonly string[];
  steps: Step[];
}

export function documentOf(open: OpenPreset): StepDocument {
  const steps = open
    .steps()
    .map((step) => ({ name: step.name, attributes: step.attributes(), where: step.where }))
    // the document as a whole is no step of its own where nothing is said there
    .filter(({ name, attributes }) => name !== WHOLE || Object.keys(attributes).length > 0);
  return { container: open.container, namespaces: open.namespaces, ...open.about, steps };
}

export const tooManySteps = (where: string): Problem =>
  new Problem(
    'preset-steps',
    `There are more than ${MAX_STEPS} steps.`,
    where,
    'This is no preset that an editor wrote; leave it out.',
  );

export const emptyAbout = (): About => ({ title: '', headings: [], identity: {} });
