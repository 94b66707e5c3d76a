/** Packs: what was delivered together. */
import { boolean, object, string } from 'yup';
import { sourceSchema } from '../item/fields';
import { uuid } from '../uuid';
import { count, endpoint, exactly } from './endpoint';
import { nameField } from './named';

/** What is said of a pack. */
export const packFields = object({
  name: nameField('A pack needs a name.'),
  release: string().trim().max(80).default(''),
  supplier: string().trim().max(200).default(''),
  licenceId: uuid().nullable().default(null),
  source: sourceSchema.default({}),
  /** of all that came in it as well */ items: boolean().default(false),
}).noUnknown();

export const packEndpoints = {
  'PATCH /api/packs/:id': endpoint({ body: packFields, answer: exactly({ changed: count() }) }),
} as const;
