/** Opening rules: the studio's, and what editors at stations have. */
import { array, boolean, number, object, string } from 'yup';
import { ruleSchema } from '../opening/rule';
import { listPlace, listPlaces } from './editor-lists';
import { endpoint, exactly, id } from './endpoint';

export const openingEndpoints = {
  /** the studio's rules, all of them in their order */
  'PUT /api/opening': endpoint({
    body: object({
      revision: number().integer().min(0).required(),
      rules: array().of(ruleSchema.required()).max(200, 'At most 200 rules.').defined(),
    }).noUnknown(),
  }),
  /** a rollout that writes them into these editors' own lists */
  'POST /api/opening/plan': endpoint({
    body: object({
      places: listPlaces(),
      /** the studio's rules go over what was changed there */ insist: boolean().default(false),
    }).noUnknown(),
    answer: exactly({ rollout: id() }),
  }),
  /** a rule of an editor there becomes one of the studio's, behind those that it has */
  'POST /api/opening/take': endpoint({
    body: listPlace.shape({ rule: string().required().max(2000) }),
  }),
} as const;
