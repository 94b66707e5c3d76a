/** Intake: uploads, and the arrivals that they make. */
import { array, lazy, number, object, string, type InferType } from 'yup';
import { itemFields, origins, sourceSchema } from '../item/fields';
import { limits } from '../pack/entry-rules';
import { acceptedKinds } from '../editor/accepted-kinds';
import { uuid } from '../uuid';
import { newLicence } from './studio';
import { count, endpoint, exactly, id, listOf, made, texts, words } from './endpoint';

/** The largest file that may be uploaded, in bytes. */
export const MOST_UPLOAD = 4 * 2 ** 30;

const announcedFile = object({
  path: string().required().max(1000),
  size: number().integer().min(1, 'The file is empty.').max(MOST_UPLOAD, 'A file may have at most 4 GB.').required(),
}).noUnknown();

const announced = object({
  name: string().trim().required().max(255),
  files: array()
    .of(announcedFile)
    .min(1, 'There is no file in this arrival.')
    .max(limits.entries, `An arrival may have at most ${limits.entries} files; pack it as a ZIP, or bring it in parts.`)
    .required(),
}).noUnknown();

const upload = exactly({ id: id(), path: words(), size: count(), received: count() });
export type Upload = InferType<typeof upload>;

const waiting = exactly({
  id: id(),
  arrival: id(),
  name: words(),
  path: words(),
  size: count(),
  received: count(),
});

/** How the files of an arrival are grouped by what is to be decided, in the order in which they are shown. */
export const entryGroups = [
  'refused',
  'unknown',
  'again',
  'version',
  'variant',
  'effect',
  'new',
  'frame',
  'picture',
  'descriptor',
  'held',
  'papers',
] as const;
export type EntryGroup = (typeof entryGroups)[number];

/** What a person can say that a file becomes. */
export const entryOutcomes = ['new', 'version', 'variant', 'duplicate', 'frame', 'document'] as const;
export type EntryOutcome = (typeof entryOutcomes)[number];
/** As it was proposed, which takes a person's word back. */
export const AS_PROPOSED = 'proposed';
/** The longest title of an item, in characters. */
export const MOST_TITLE = itemFields.title.shape.most;

/** What a file is called, before it stands on a shelf. */
const entryTitle = object({
  entry: number().integer().required(),
  title: string().trim().min(1, itemFields.title.shape.needed).max(MOST_TITLE).required(),
}).noUnknown();

const correction = object({
  entries: array().of(number().integer().required()).max(20000).default([]),
  group: string().oneOf(entryGroups),
  /** of the group, only files with these words in their path or title */
  words: string().trim().max(200).default(''),
  outcome: string()
    .oneOf([...entryOutcomes, AS_PROPOSED] as const, 'That is nothing a file can become.')
    .required(),
  kind: string()
    .oneOf([...acceptedKinds, 'frame', 'document'])
    .nullable()
    .default(null),
  itemId: uuid().nullable().default(null),
  entryId: number().integer().nullable().default(null),
}).noUnknown();

const acceptance = object({
  /** none given: all that is proposed */
  entries: array().of(number().integer().required()).nullable().default(null),
  /** but not these groups, and of each file named the contrary of what its group is */
  except: array().of(number().integer().required()).default([]),
  exceptGroups: array().of(string().oneOf(entryGroups).required()).default([]),
  /** where new items go, or the name of the shelf that is made for them */
  shelfId: uuid().nullable().default(null),
  newShelf: string().trim().max(120).default(''),
  newLicence: newLicence.nullable().default(null),
  /** where new items of a kind go instead */
  byKind: lazy((value: unknown) =>
    object(
      Object.fromEntries(
        Object.keys((value ?? {}) as object).map((kind) => [kind, uuid().required('Choose a shelf.')]),
      ),
    ).default({}),
  ),
  supplier: string().trim().max(200).default(''),
  release: string().trim().max(80).default(''),
  licenceId: uuid().nullable().default(null),
  source: sourceSchema.default({}),
  origin: string().oneOf([...origins]),
}).noUnknown();

export const arrivalEndpoints = {
  'POST /api/uploads': endpoint({ body: announced, answer: exactly({ arrival: id(), files: listOf(upload) }) }),
  'GET /api/uploads': endpoint({ answer: exactly({ uploads: listOf(waiting) }) }),
  'GET /api/uploads/:id': endpoint({
    answer: exactly({ id: id(), name: words(), size: count(), received: count() }),
  }),
  /** the part itself is the body */
  'PUT /api/uploads/:id': endpoint({ answer: exactly({ received: count() }) }),
  'POST /api/uploads/:id': endpoint({ answer: exactly({ arrival: id(), waiting: count() }) }),
  'POST /api/arrivals/:id': endpoint({
    body: acceptance,
    answer: exactly({ items: texts(), versions: count(), frames: count(), descriptors: count() }),
  }),
  'PATCH /api/arrivals/:id': endpoint({ body: correction, answer: exactly({ changed: count() }) }),
  'POST /api/arrivals/:id/title': endpoint({ body: entryTitle }),
  'DELETE /api/arrivals/:id': endpoint({}),
  'POST /api/arrivals/:id/back': endpoint({}),
  'POST /api/arrivals/:id/read': endpoint({}),
  /** reads a chart that came back among the files; the chart that it is */
  'POST /api/arrivals/:id/chart': endpoint({
    body: object({ entry: number().integer().min(1).required() }).noUnknown(),
    answer: made,
  }),
  'POST /api/arrivals/:id/undo': endpoint({
    answer: exactly({ versions: count(), items: count(), frames: count() }),
  }),
} as const;
