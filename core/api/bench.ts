/** The bench: candidates, verdicts, benches that are kept, frames and their charts. */
import { array, boolean, number, object, string, type InferType } from 'yup';
import type { Trim } from '../bench/measure';
import { STAGES } from '../camera/stages';
import type { White } from '../camera/white';
import type { Patch } from '../chart/cgats';
import { uuid } from '../uuid';
import { columnFields, titleField, triple } from '../conversion/recipe';
import { asIs, count, endpoint, exactly, figure, flag, id, listOf, made, texts, words } from './endpoint';
import { nameField } from './named';

/** A look, preset or profile as the bench has it. */
const candidate = exactly({
  versionId: id(),
  itemId: id(),
  title: words(),
  kind: string()
    .oneOf(['look', 'preset', 'camera-profile'] as const)
    .required(),
  number: count(),
  status: words(),
  cameras: texts(),
  supplier: words(),
  most: count(),
  usual: count(),
  /** it takes no strength: as made or not at all */ fixed: flag(),
  /** the rungs that a profile has */ rungs: texts(),
  noCurve: flag(),
  /** how an ICC input profile's device values are taken */ icc: words(),
  shown: flag(),
  /** what it is meant to do */ intention: words(),
  /** this version, all that it was made from, and what it calls */ roots: texts(),
  /** it calls a look that was made from it */ doubled: flag(),
  /** settings of a preset that are not rendered */ notShown: texts(),
  /** looks that a preset calls and nobody holds */ missing: texts(),
  /** that a verdict has kept with it: it is laid with it */ trim: asIs<Trim | null>(),
});
export type Candidate = InferType<typeof candidate>;

const decision = object({
  profile: string().nullable().default(null),
  look: string().nullable().default(null),
  strength: number().integer().min(0).max(400).required(),
  frames: array().of(string().required()).max(64).required(),
  stages: array().of(string().oneOf(STAGES).required()).nullable().default(null),
  beside: string().max(200, 'At most 200 signs.').default(''),
  words: string().trim().max(2000, 'At most 2,000 signs.').default(''),
  chosen: boolean().required(),
  /** who judged did not know what it was */ blind: boolean().default(false),
  asMeant: boolean().nullable().default(null),
  ribbon: boolean().default(false),
  advise: boolean().default(false),
  choice: object({
    client: string().trim().max(120).default(''),
    anyCamera: boolean().default(false),
    anyLight: boolean().default(false),
    anyKind: boolean().default(false),
  })
    .nullable()
    .default(null),
  display: object({ gamut: string().max(20).default(''), calibrated: string().max(20).default('') }).required(),
  compensation: object({ slope: triple(), offset: triple(), power: triple() }).nullable().default(null),
}).noUnknown();

const anchoring = object({
  version: uuid().required(),
  frame: uuid().required(),
  white: string().max(80).required(),
  kelvin: number().min(2000).max(50000).required(),
  title: string().trim().min(1).max(200).required(),
}).noUnknown();

/** A column as it stands, to be kept as a look. */
const keptColumn = columnFields.shape({ title: titleField().required('A look needs a title.') }).noUnknown();

const keptBench = object({
  name: nameField('A bench that is kept needs a name.'),
  state: string().max(8000).required(),
  shared: boolean().default(true),
}).noUnknown();

/** What an editor made of a frame, as it is brought in; the picture itself is the body. */
export const exportLabel = string()
  .trim()
  .required('An export needs a label.')
  .max(120, 'A label has at most 120 signs.')
  .matches(/^[^!~:]*$/, 'A label has none of the signs ! ~ and :');

const frameSet = object({
  id: uuid(),
  name: nameField('A set needs a name.'),
  frames: array().of(uuid().required()).min(1, 'A set needs a frame.').max(200).required(),
}).noUnknown();

/** Measured values of a chart's patches, laid out in rows. */
const chart = exactly({
  id: id(),
  name: words(),
  columns: count(),
  rows: count(),
  patches: listOf(asIs<Patch>()),
  /** how far the corner marks stand outside the field, in widths of a patch */ outside: figure(),
});
export type ChartOnBench = InferType<typeof chart>;

export const benchEndpoints = {
  'GET /api/bench/candidates': endpoint({ answer: exactly({ candidates: listOf(candidate) }) }),
  'POST /api/bench/verdict': endpoint({
    body: decision,
    answer: exactly({ verdicts: count(), choices: count(), provisional: flag() }),
  }),
  'POST /api/bench/anchor': endpoint({
    body: anchoring,
    answer: exactly({ itemId: id(), versionId: id(), after: asIs<White>() }),
  }),
  'POST /api/bench/look': endpoint({
    body: keptColumn,
    answer: exactly({ itemId: id(), versionId: id(), error: exactly({ meanDeltaE: figure(), maxDeltaE: figure() }) }),
  }),
  'POST /api/bench/sets': endpoint({ body: frameSet, answer: made }),
  'POST /api/bench/saved': endpoint({ body: keptBench, answer: made }),
  'PATCH /api/bench/saved/:id': endpoint({ body: keptBench, answer: made }),
  'DELETE /api/bench/saved/:id': endpoint({}),
  'DELETE /api/bench/choices/:n': endpoint({}),
  'GET /api/charts': endpoint({ answer: exactly({ charts: listOf(chart) }) }),
  'POST /api/charts': endpoint({
    body: object({
      name: string().trim().max(120).default(''),
      text: string().max(2_000_000).required('There is no text.'),
    }).noUnknown(),
    answer: chart,
  }),
  'PATCH /api/charts/:id': endpoint({
    body: object({
      columns: number().integer().min(1).max(100).required(),
      outside: number().min(0).max(3).required(),
    }).noUnknown(),
    answer: chart,
  }),
  'PUT /api/frames/:id/chart': endpoint({
    body: object({
      chart: uuid().nullable().default(null),
      corners: array().of(array().of(number().required()).length(2).required()).length(4).nullable().default(null),
    }).noUnknown(),
  }),
  'GET /api/frames/:id/full': endpoint({ answer: exactly({ width: count(), height: count() }) }),
  /** the picture is the body, its label in the address */
  'POST /api/frames/:id/exports': endpoint({ answer: made }),
  'DELETE /api/exports/:id': endpoint({}),
} as const;
