/** Stations and the editors on them. */
import { array, boolean, object, string } from 'yup';
import { endpoint, exactly, id, words } from './endpoint';

export const stationEndpoints = {
  'POST /api/stations': endpoint({
    body: object({
      name: string().trim().required('A station needs a name.').max(120),
      system: string().oneOf(['macos', 'windows', 'linux']).required(),
      person: string().max(120).default(''),
      editors: array()
        .of(
          string()
            .required()
            .matches(/^[a-z0-9-]+@[0-9.]+$/),
        )
        .default([]),
    }).noUnknown(),
    answer: exactly({ id: id(), code: words() }),
  }),
  /** its name, whose it is, and whether it is in use at all */
  'PATCH /api/stations/:id': endpoint({
    body: object({
      name: string().trim().required('A station needs a name.').max(120),
      person: string().trim().max(120).default(''),
      retired: boolean().default(false),
    }).noUnknown(),
  }),
  'POST /api/stations/:id/editor': endpoint({
    body: object({
      editor: string().required().max(120),
      verb: string()
        .oneOf(['launch', 'quit'] as const, 'An editor can be launched or quit.')
        .required('An editor can be launched or quit.'),
    }).noUnknown(),
  }),
  'POST /api/stations/:id/code': endpoint({ answer: exactly({ code: words() }) }),
  /** its agent's token holds no longer */
  'DELETE /api/stations/:id/token': endpoint({}),
  'POST /api/stations/:id/found': endpoint({ answer: exactly({ arrival: id() }) }),
  /** a descriptor's JSON is the body */
  'POST /api/editors': endpoint({ answer: exactly({ id: id(), editor: words(), version: words() }) }),
  /** the lead takes or declines what somebody proposed; `outside` allows places outside the editor's own folders */
  'POST /api/proposals/:id': endpoint({
    body: object({
      verb: string()
        .oneOf(['take', 'decline'] as const)
        .required('A proposal is taken or declined.'),
      outside: boolean().default(false),
    }).noUnknown(),
  }),
} as const;
