/** Rollouts, and the jobs that take their time. */
import { array, boolean, date, number, object, string } from 'yup';
import type { ToldProblem } from '../problem';
import { uuid } from '../uuid';
import { asIs, endpoint, exactly, figure, id, made, words } from './endpoint';

export const rolloutVerbs = [
  'confirm',
  'undo',
  'drop',
  'again',
  'pause',
  'resume',
  'begin',
  'release',
  'stop',
] as const;
const VERBS =
  'A rollout can be confirmed, undone, dropped, planned again, halted, gone on with, begun at once, let go to the rest, or stopped.';
export type RolloutVerb = (typeof rolloutVerbs)[number];

export const rolloutEndpoints = {
  /** plans that these items are taken away wherever they lie */
  'POST /api/rollouts/removal': endpoint({
    body: object({
      title: string().trim().max(200).default(''),
      items: array()
        .of(uuid().required())
        .min(1, 'Choose at least one item.')
        .max(5000, 'At most 5,000 items go at once.')
        .required(),
    }).noUnknown(),
    answer: exactly({ rollout: id() }),
  }),
  'POST /api/rollouts': endpoint({
    body: object({
      title: string().trim().max(200).default(''),
      versions: array()
        .of(uuid().required())
        .min(1, 'Choose at least one item.')
        .max(500, 'At most 500 items go at once.')
        .required(),
      stations: array()
        .of(uuid().required())
        .min(1, 'Choose at least one station.')
        .max(1000, 'At most 1,000 stations go at once.')
        .required(),
    }).noUnknown(),
    answer: made,
  }),
  'POST /api/rollouts/:id': endpoint({
    body: object({
      verb: string().oneOf(rolloutVerbs, VERBS).required(VERBS),
      /** to confirm: the station that it goes to before the rest */ first: uuid().nullable().default(null),
      /** and whether the rest goes by itself once all is listed there */ goesOn: boolean().default(false),
      /** nothing of it is written before then; null: at once */ at: date().nullable().default(null),
    }).noUnknown(),
    answer: made,
  }),
  /** leaves out what waits at a station: all of it, or these steps */
  'POST /api/rollouts/:id/leave': endpoint({
    body: object({
      station: uuid().required('Say at which station.'),
      steps: array().of(number().integer().min(1).required()).max(50_000).nullable().default(null),
    }).noUnknown(),
    answer: exactly({ left: number().required() }),
  }),
  /** what waits at a station where no agent is was done by hand, as somebody says */
  'POST /api/rollouts/:id/by-hand': endpoint({
    body: object({ station: uuid().required('Say at which station.') }).noUnknown(),
    answer: exactly({ done: number().required() }),
  }),
  /** the cameras of what was left out at a station are used there: the plan is worked out again */
  'POST /api/rollouts/:id/used': endpoint({
    body: object({ station: uuid().required('Say at which station.') }).noUnknown(),
  }),
  'GET /api/jobs/:id': endpoint({
    answer: exactly({
      id: id(),
      title: words(),
      status: string()
        .oneOf(['queued', 'running', 'done', 'failed', 'cancelled'] as const)
        .required(),
      /** the share that is done, 0…1 */ progress: figure(),
      note: words(),
      error: asIs<ToldProblem | null>(),
    }),
  }),
  'DELETE /api/jobs/:id': endpoint({}),
  /** a backup is the body */
  'POST /api/backup': endpoint({
    answer: exactly({
      items: number().required(),
      versions: number().required(),
      contents: number().required(),
    }),
  }),
} as const;
