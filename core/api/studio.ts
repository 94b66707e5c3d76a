/** Licences, and what the studio decides once for all. */
import { boolean, number, object, string, type InferType } from 'yup';
import { count, endpoint, exactly, made } from './endpoint';

/** A licence as a person notes it. */
export const newLicence = object({
  name: string().trim().required('A licence needs a name.').max(120),
  owner: string().trim().max(200).default(''),
  terms: string().max(4000).default(''),
  may_convert: string()
    .oneOf(['yes', 'no', 'unknown'] as const)
    .default('unknown'),
  may_spread: string()
    .oneOf(['yes', 'no', 'unknown'] as const)
    .default('unknown'),
  seats: number().integer('Seats are whole.').min(1, 'At least one seat.').max(1e6).nullable().default(null),
  seats_by: string()
    .oneOf(['person', 'device', 'site'] as const)
    .default('person'),
  ends_on: string()
    .matches(/^\d{4}-\d{2}-\d{2}$/, { message: 'A date is written 2026-12-31.', excludeEmptyString: true })
    .nullable()
    .default(null),
  at_end: string()
    .oneOf(['remove', 'keep results', 'ask'] as const)
    .default('ask'),
}).noUnknown();

export type NewLicence = Partial<InferType<typeof newLicence>>;

const copyTolerance = object({
  p95: number()
    .typeError('A difference is a number.')
    .min(0.05, 'At least 0.05 ΔE00: two writings of one table differ by that much.')
    .max(3, 'At most 3 ΔE00 for 95 % of colors: beyond, everyone sees the difference.')
    .required('A difference is needed.'),
  max: number()
    .typeError('A difference is a number.')
    .max(10, 'At most 10 ΔE00 for the farthest color.')
    .required('A difference is needed.')
    .when('p95', ([p95], schema) => schema.min(p95 as number, 'The farthest color may not be nearer than most are.')),
}).noUnknown();

/** How far off a table may be before a lead has to say so. */
const proofLimits = object({
  mean: number()
    .typeError('A difference is a number.')
    .min(0.01, 'At least 0.01 ΔE00.')
    .max(5, 'At most 5 ΔE00 on average: beyond, it is another look.')
    .required('A difference is needed.'),
  max: number()
    .typeError('A difference is a number.')
    .max(50, 'At most 50 ΔE00 for the farthest color.')
    .required('A difference is needed.')
    .when('mean', ([mean], schema) =>
      schema.min(mean as number, 'The farthest color may not be nearer than the mean.'),
    ),
}).noUnknown();

/** Whether another person confirms what one has planned. */
const review = object({ asked: boolean().required() }).noUnknown();

export const stepsHidden = object({ hidden: boolean().required() }).noUnknown();

const amount = exactly({ contents: count(), bytes: count() });

export const studioEndpoints = {
  'POST /api/licences': endpoint({ body: newLicence, answer: made }),
  'PATCH /api/licences/:id': endpoint({ body: newLicence }),
  /** what nothing refers to */
  'GET /api/contents': endpoint({ answer: exactly({ all: amount, unused: amount, days: count() }) }),
  'DELETE /api/contents': endpoint({ answer: amount }),
  /** a database that a restore has put aside */
  'DELETE /api/kept/:n': endpoint({}),
  'PATCH /api/studio': endpoint({ body: copyTolerance }),
  'PATCH /api/studio/proof': endpoint({ body: proofLimits }),
  'PATCH /api/studio/review': endpoint({ body: review }),
  'PATCH /api/studio/first-steps': endpoint({ body: stepsHidden }),
} as const;
