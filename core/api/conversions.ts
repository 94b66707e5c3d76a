/** Conversions of many: planned, changed, carried through, made again. */
import { array, boolean, number, object, string } from 'yup';
import { pointsField, recipeFields, settingIds } from '../conversion/recipe';
import { uuid } from '../uuid';
import { endpoint, made } from './endpoint';

/** What is converted at once. */
export const MOST_AT_ONCE = 1000;
const atOnce = `At most ${MOST_AT_ONCE.toLocaleString('en')} are converted at once.`;

export const conversionVerbs = ['start', 'pause', 'stop', 'retry', 'plan', 'drop'] as const;
export type ConversionVerb = (typeof conversionVerbs)[number];

const naming = () => string().trim().max(200, 'A pattern has at most 200 signs.');
/** Of rows, by their places. */
const places = () =>
  array().of(number().integer().min(1).required()).min(1, 'Nothing is chosen.').max(MOST_AT_ONCE, atOnce).required();
const said = 'Choose what a conversion shall do: start, pause, stop, retry, plan or drop.';

export const conversionEndpoints = {
  /** of chosen items, or of all on a shelf or in a pack; the recipe is the usual one for their kind where none is given */
  'POST /api/conversions': endpoint({
    body: object({
      items: array().of(uuid().required()).max(MOST_AT_ONCE, atOnce).default([]),
      shelf: uuid().nullable().default(null),
      pack: uuid().nullable().default(null),
      recipe: recipeFields.nullable().default(null),
    }).noUnknown(),
    answer: made,
  }),
  /** of what was made of sources that have become newer: by the recipe by which it was made */
  'POST /api/conversions/again': endpoint({
    body: object({
      items: array().of(uuid().required()).min(1, 'Nothing is chosen.').max(MOST_AT_ONCE, atOnce).required(),
    }).noUnknown(),
    answer: made,
  }),
  'PATCH /api/conversions/:id': endpoint({
    body: object({
      recipe: recipeFields.default(undefined),
      naming: naming(),
      shelfId: uuid().nullable(),
      clash: string()
        .oneOf(['number', 'leave'] as const)
        .nullable(),
    }).noUnknown(),
  }),
  /** rows that are left out or taken back, or made otherwise than the rest */
  'PATCH /api/conversions/:id/rows': endpoint({
    body: object({
      places: places(),
      excluded: boolean(),
      /** '' is the pattern's */ title: string().trim().max(200, 'A title has at most 200 signs.'),
      /** settings left out of these; null is as the rest */ leave: settingIds().nullable().default(undefined),
      /** of these; null is as the rest */ size: pointsField().nullable().default(undefined),
    }).noUnknown(),
  }),
  'POST /api/conversions/:id': endpoint({
    body: object({ verb: string().oneOf(conversionVerbs, said).required(said) }).noUnknown(),
  }),
} as const;
