/** The form of a mapping, as a descriptor has it: what stands in which place, and of which type. */
import { array, boolean, lazy, mixed, number, object, string, type Schema } from 'yup';

/** A name of an element, a section or a key in a preset's language. */
const name = () =>
  string()
    .required()
    .max(200)
    .matches(/^[^\u0000-\u001f<>=\[\]]+$/, '${path} must be a plain name');

const place = () => object({ step: name(), attribute: name() }).noUnknown();

/** Values of one form under names that are free. */
const record = (of: () => Schema) =>
  lazy((value: unknown) =>
    value === undefined
      ? mixed().optional()
      : object(Object.fromEntries(Object.keys(Object(value) as object).map((key) => [key, of()]))),
  );

const isPair = (value: unknown): boolean =>
  Array.isArray(value) && value.length === 2 && value.every((one) => typeof one === 'number' && Number.isFinite(one));

const isTextOrNumber = (value: unknown): boolean => ['number', 'string'].includes(typeof value);
const textOrNumber = () =>
  mixed().test('value', '${path} must be a number or a text', (value) => value === undefined || isTextOrNumber(value));

/** Through which numbers a property becomes its setting. */
const rule = {
  scale: number(),
  offset: number(),
  table: mixed().test(
    'table',
    '${path} must be a list of pairs of numbers',
    (value) => value === undefined || (Array.isArray(value) && value.every(isPair)),
  ),
  log2: boolean(),
  exp2: boolean(),
  range: mixed().test('range', '${path} must be two numbers', (value) => value === undefined || isPair(value)),
  multipleOf: number(),
};

const field = () =>
  object({
    ...rule,
    attribute: string().required(),
    as: string().oneOf(['number', 'text']),
    default: textOrNumber(),
  }).noUnknown();

const entry = object({
  ...rule,
  step: string().required(),
  to: string().required(),
  when: record(() => string().required()),
  attribute: string(),
  as: string().oneOf(['number', 'numbers', 'points', 'text']),
  separators: object({ point: string().required(), pair: string().required() }).noUnknown().default(undefined),
  names: record(() => mixed().nullable()),
  sum: array().of(field()).min(1),
  fields: record(field),
  constants: record(() => textOrNumber().required()),
  list: boolean(),
  constant: mixed().nullable(),
  class: string().oneOf(['point', 'raw', 'local', 'position', 'geometry', 'reference']),
  reason: string().max(400),
}).noUnknown();

export const mappingSchema = object({
  title: place().default(undefined),
  headings: place().shape({ separator: string().required() }).default(undefined),
  identity: record(place),
  ignore: array().of(string().required()),
  defaults: string().oneOf(['written', 'left-out']),
  entries: array().of(entry).required(),
}).noUnknown();
