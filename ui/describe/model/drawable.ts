/**
 * Whether the form can show a descriptor: each part that it draws is of the kind that it draws. What somebody types as JSON
 * may be anything, and is for the check to refuse, not for the form to break over.
 */
import type { Descriptor } from '@/core/editor/descriptor';

type Test = (value: unknown) => boolean;
type Unsure = Record<string, unknown>;

const isObject = (value: unknown): value is Unsure =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isText: Test = (value) => typeof value === 'string';
const isNumber: Test = (value) => typeof value === 'number';
const isFlag: Test = (value) => typeof value === 'boolean';
const listOf =
  (test: Test): Test =>
  (value) =>
    Array.isArray(value) && value.every(test);
const recordOf =
  (test: Test): Test =>
  (value) =>
    isObject(value) && Object.values(value).every(test);
const either =
  (...tests: readonly Test[]): Test =>
  (value) =>
    tests.some((test) => test(value));
const maybe = (test: Test): Test => either((value) => value === undefined, test);
/** An object whose parts pass; of other parts nothing is asked. */
const parts =
  (tests: Readonly<Record<string, Test>>): Test =>
  (value) =>
    isObject(value) && Object.entries(tests).every(([name, test]) => test(value[name]));

const templates = recordOf(isText);
const table = parts({
  codec: isText,
  size: recordOf(isNumber),
  encoding: parts({
    primaries: isText,
    transfer: either(isText, parts({ log: parts({ below: isNumber, above: isNumber }) })),
  }),
});
const accepts = parts({
  kind: isText,
  place: isText,
  extension: isText,
  headings: isText,
  language: maybe(isText),
  formats: maybe(listOf(isText)),
  import: maybe(listOf(isText)),
  meets: maybe(isObject),
  names: maybe(parts({ max: maybe(isNumber) })),
  most: maybe(isNumber),
  writer: parts({ table: maybe(table) }),
});
const descriptor = parts({
  editor: isText,
  version: isText,
  title: isText,
  kind: isText,
  systems: listOf(isText),
  sees: isText,
  listing: templates,
  places: recordOf(templates),
  accepts: listOf(accepts),
  cameras: maybe(either((value) => value === 'all', listOf(isText))),
  honours: maybe(listOf(isText)),
  notes: maybe(isText),
  writesBack: maybe(isFlag),
});

export const isDrawable = (draft: unknown): draft is Descriptor => descriptor(draft);
