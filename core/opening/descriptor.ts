/** What a descriptor says of an editor's opening rules: where they stand, in which form, and what its words mean. */
import { lazy, mixed, object, string } from 'yup';
import { isInBundle, listPaths, type System } from '../editor/place-schema';
import {
  conditionNames,
  conditions,
  settingNames,
  settings,
  type Condition,
  type Definition,
  type Setting,
} from './rule';

/** What JSON can say of one thing. */
export type Scalar = string | number | boolean;

/** How an editor says one condition or setting: under this key, with these values for the common words. */
export interface Code {
  key: string;
  /** by common word; without, or for other texts where these are allowed, the text itself */ values?: Record<
    string,
    Scalar
  >;
}
export interface Opening {
  list: Partial<Record<System, string>>;
  /** An array of objects in JSON, or a rule a line: `key = value; key = value => key = value`, and # before remarks. */
  form: 'json' | 'lines';
  /** In JSON, the names of the two parts of a rule. */ parts?: { when: string; start: string };
  when: Partial<Record<Condition, Code>>;
  start: Partial<Record<Setting, Code>>;
}

const key = string()
  .required()
  .matches(/^[A-Za-z][\w.-]{0,59}$/, '${path} must be a name of letters, digits, dots and dashes');
const scalar = mixed<Scalar>((value): value is Scalar =>
  ['string', 'number', 'boolean'].includes(typeof value),
).required();
const values = lazy((given: unknown) =>
  given === undefined
    ? mixed()
    : object(Object.fromEntries(Object.keys((given ?? {}) as object).map((word) => [word, scalar]))).required(),
);
const codes = (names: readonly string[]) =>
  object(Object.fromEntries(names.map((name) => [name, object({ key, values }).noUnknown().default(undefined)])))
    .noUnknown()
    .required();

export const openingSchema = object({
  list: listPaths,
  form: string().oneOf(['json', 'lines']).required(),
  parts: object({ when: key, start: key }).noUnknown().default(undefined),
  when: codes(conditionNames),
  start: codes(settingNames),
})
  .noUnknown()
  .default(undefined);

/** What is wrong with what an editor's words mean; null where nothing is. */
export function faultOfOpening(opening: Opening): { message: string; remedy: string } | null {
  const { list, form, parts } = opening;
  if (!Object.keys(list ?? {}).length)
    return { message: 'Opening rules stand nowhere.', remedy: 'Add a list: a file by system.' };
  if (isInBundle(list) && form !== 'json')
    return {
      message: 'Opening rules stand in a bundle, and their form is lines.',
      remedy: 'Give opening rules of a bundle the form "json".',
    };
  if ((form === 'json') !== (parts !== undefined))
    return {
      message: 'Opening rules in JSON name the two parts of a rule, and those in lines do not.',
      remedy: 'Add or take away { "parts": { "when": "…", "start": "…" } }.',
    };
  return faultOfCodes('when', conditions, opening.when) ?? faultOfCodes('start', settings, opening.start);
}

type Definitions = Record<string, Definition>;

function faultOfCodes(
  part: string,
  definitions: Definitions,
  codes: Partial<Record<string, Code>>,
): { message: string; remedy: string } | null {
  const seen = new Set<string>();
  for (const [name, code] of Object.entries(codes)) {
    if (!code) continue;
    const words = definitions[name]?.values ?? [];
    const unknown = Object.keys(code.values ?? {}).find((word) => !words.includes(word));
    if (unknown !== undefined)
      return {
        message: `Opening rules know no "${unknown}" of ${part}.${name}.`,
        remedy: `Use ${words.length ? words.map((word) => `"${word}"`).join(', ') : 'no values: any text stands for itself'}.`,
      };
    if (seen.has(code.key))
      return {
        message: `Two of opening rules' ${part} have the key "${code.key}".`,
        remedy: 'Give each its own.',
      };
    seen.add(code.key);
    const told = Object.values(code.values ?? {}).map(String);
    if (new Set(told).size < told.length)
      return {
        message: `Two words of ${part}.${name} are one value of the editor.`,
        remedy: 'Keep the one that it means.',
      };
  }
  return null;
}
