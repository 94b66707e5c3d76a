/** Standing orders: what stations follow. */
import { array, boolean, number, object, string } from 'yup';
import { groupNames } from '../records/groups';
import { uuid } from '../uuid';
import { endpoint, exactly, id, made } from './endpoint';

const ids = (what: string) => array().of(uuid().required()).max(500, `At most 500 ${what} at once.`).default([]);

const order = {
  name: string().trim().required('A standing order needs a name.').max(120, 'A name has at most 120 signs.'),
  shelves: ids('shelves'),
  packs: ids('packs'),
  /** the house's everyday list */ ribbons: boolean().default(false),
  /** the house's choices of profiles and looks */ choices: boolean().default(false),
  /** followed by whatever stations are in them */ groups: groupNames().default([]),
  stations: ids('stations').when('groups', ([groups], schema) =>
    (groups as string[] | undefined)?.length ? schema : schema.min(1, 'Choose at least one station.'),
  ),
};

export const orderEndpoints = {
  'POST /api/orders': endpoint({ body: object(order).noUnknown(), answer: made }),
  'PATCH /api/orders/:id': endpoint({
    body: object({ ...order, revision: number().integer().min(1).required() }).noUnknown(),
  }),
  'DELETE /api/orders/:id': endpoint({}),
  /** a plan of what is missing or due, at all of its stations or at one */
  'POST /api/orders/:id/plan': endpoint({
    body: object({ station: uuid().nullable().default(null) }).noUnknown(),
    answer: exactly({ rollout: id() }),
  }),
} as const;
