/** Stations and the editors on them; who may sign in. */
import { array, boolean, object, string } from 'yup';
import { endpoint, exactly, id, words } from './endpoint';

/** What is said of whoever is to sign in. */
export const newPerson = {
  name: string().required('A name is needed.').max(120),
  email: string()
    .required('An e-mail address is needed.')
    .max(200)
    .matches(/^[^\s@]+@[^\s@]+$/, 'This is no e-mail address.'),
  password: string().required('A password is needed.').min(10, 'A password has at least 10 characters.').max(200),
};

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

export const peopleEndpoints = {
  'POST /api/session': endpoint({
    body: object({ email: string().defined(), password: string().defined() }).noUnknown(),
    answer: exactly({ name: words() }),
  }),
  'DELETE /api/session': endpoint({}),
  /** one of one's own */
  'DELETE /api/sessions/:id': endpoint({}),
  'POST /api/password': endpoint({
    body: object({
      current: string().required('Type the password that you have now.').max(200),
      password: newPerson.password,
    }).noUnknown(),
  }),
  /** the first person of an empty studio */
  'POST /api/people': endpoint({ body: object({ code: string().defined(), ...newPerson }).noUnknown() }),
} as const;
