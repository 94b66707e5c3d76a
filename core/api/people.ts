/** People: who may sign in, as what, and how they come to a password. */
import { boolean, object, string, type InferType } from 'yup';
import { count, endpoint, exactly, words } from './endpoint';

export const roles = ['librarian', 'retoucher', 'lead'] as const;
export type Role = (typeof roles)[number];

/** What is said of whoever is to sign in. */
export const newPerson = {
  name: string().required('A name is needed.').max(120),
  email: string()
    .required('An e-mail address is needed.')
    .max(200)
    .matches(/^[^\s@]+@[^\s@]+$/, 'This is no e-mail address.'),
  password: string().required('A password is needed.').min(10, 'A password has at least 10 characters.').max(200),
};

const role = () => string().oneOf([...roles], 'Choose a role.');

export const invitation = object({
  name: newPerson.name.trim(),
  email: newPerson.email.trim(),
  role: role().required('Choose a role.'),
}).noUnknown();
export type Invitation = InferType<typeof invitation>;

const personChange = object({ role: role(), active: boolean() }).noUnknown();

/** A path with a secret in it, shown once, and until when it can be used. */
const link = exactly({ path: words(), until: words() });

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
  'POST /api/people/invitations': endpoint({ body: invitation, answer: link }),
  /** another link: to join, or for another password */
  'POST /api/people/:id/link': endpoint({ answer: link }),
  'PATCH /api/people/:id': endpoint({ body: personChange }),
  /** all of them */
  'DELETE /api/people/:id/sessions': endpoint({ answer: exactly({ ended: count() }) }),
  /** by whoever was given the link */
  'POST /api/join': endpoint({
    body: object({ token: string().required().max(100), password: newPerson.password }).noUnknown(),
    answer: exactly({ name: words() }),
  }),
  /** the first person of an empty studio */
  'POST /api/people': endpoint({ body: object({ code: string().defined(), ...newPerson }).noUnknown() }),
} as const;
