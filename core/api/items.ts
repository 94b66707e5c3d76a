/** Items: what is said of them, one by one and many at once. */
import { array, boolean, number, object, string, type InferType } from 'yup';
import { itemChangeSchema, itemFields, type ItemChange } from '../item/fields';
import type { Finding } from '../records/foretell';
import { uuid } from '../uuid';
import { encoding } from './versions';
import { asIs, count, endpoint, exactly, flag, id, listOf, texts, words } from './endpoint';

const ids = (none: string, most: number) => array().of(uuid().required()).min(1, none).max(most).required();

const { most, length } = itemFields.tags.shape;
const tags = () => array().of(string().trim().min(1).max(length).required()).max(most).default([]);

const bulkChange = object({
  items: ids('Nothing is chosen.', 5000),
  revisions: array().of(number().integer().required()),
  title: object({
    find: string().max(200).default(''),
    replace: string().max(200).default(''),
    pattern: string().max(200).default(''),
  })
    .noUnknown()
    .default(undefined),
  set: itemChangeSchema.default(undefined),
  addTags: tags(),
  removeTags: tags(),
}).noUnknown();

/** A change of many items. */
export interface BulkEdit {
  items: string[];
  title?: { find?: string; replace?: string; pattern?: string };
  set?: ItemChange;
  addTags?: string[];
  removeTags?: string[];
}

/** What a change of many comes to for one of them. */
const bulkRow = exactly({
  id: id(),
  kind: words(),
  before: words(),
  after: words(),
  changes: texts(),
  files: listOf(exactly({ editor: words(), name: words(), altered: flag() })),
  problem: string().nullable().defined(),
});
export type BulkRow = InferType<typeof bulkRow>;

const change = object({
  revision: number().integer().required(),
  base: itemChangeSchema.required(),
  mine: itemChangeSchema.required(),
}).noUnknown();

const foretoldAt = exactly({
  editor: words(),
  title: words(),
  /** the form of the item that is meant; '' for the plain one */ variant: words(),
  /** null: the editor alone, where no station has it */ station: asIs<{ id: string; name: string } | null>(),
  /** of the form that is meant; and approved ones of what it refers to */ version: id(),
  needs: texts(),
  answer: string()
    .oneOf(['yes', 'no', 'unknown'] as const)
    .required(),
  findings: listOf(asIs<Finding>()),
});
export type ForetoldAt = InferType<typeof foretoldAt>;
const foretold = () =>
  exactly({
    item: words(),
    photo: words(),
    /** the shelf that it stands on */ shelf: asIs<string | null>(),
    /** whether editors at stations can be started from here */ launcher: flag(),
    at: listOf(foretoldAt),
  });

/** A photo as its file says it: read in the browser, and not sent. */
export const photoAsked = object({
  name: string().required().max(300),
  maker: string().max(120).default(''),
  camera: string().max(200).default(''),
  serial: string().max(120).default(''),
  kind: string()
    .oneOf(['camera data', 'rendered'] as const)
    .required(),
  range: string()
    .oneOf(['SDR', 'HDR'] as const)
    .nullable()
    .default(null),
  result: string()
    .oneOf(['color', 'monochrome'] as const)
    .nullable()
    .default(null),
}).noUnknown();
export type PhotoAsked = InferType<typeof photoAsked>;

const ribbon = object({
  on: boolean().required(),
  whose: string()
    .oneOf(['mine', 'house'] as const)
    .required(),
});
const ribbons = object({
  whose: string()
    .oneOf(['mine', 'house'] as const)
    .required(),
  ribbons: array().of(number().integer().required()).min(1, 'Nothing is chosen.').max(5000).required(),
}).noUnknown();

/** Events of a change, from the first to the last. */
const eventRange = () =>
  object({ first: number().integer().min(0).required(), last: number().integer().min(0).required() }).required();

/** What a change of many did not touch, and why. */
const leftOut = exactly({ id: id(), title: words(), why: words() });
export type LeftOut = InferType<typeof leftOut>;

export const itemEndpoints = {
  'PATCH /api/items/:id': endpoint({
    body: change,
    answer: exactly({ revision: count(), merged: texts(), who: words() }),
  }),
  /** for a photo like one of the frames, `frame` */
  'GET /api/items/:id/foretell': endpoint({ answer: foretold() }),
  /** for any photo */
  'POST /api/items/:id/foretell': endpoint({
    body: object({ photo: photoAsked.required() }).noUnknown(),
    answer: foretold(),
  }),
  /** forgets the trim that is kept with it */
  'DELETE /api/items/:id/trim': endpoint({}),
  'POST /api/items/:id/write': endpoint({ answer: exactly({ versionId: id() }) }),
  'POST /api/items/:id/ribbon': endpoint({ body: ribbon }),
  'POST /api/items/bulk': endpoint({
    body: bulkChange,
    /** `undo` names the change, to take it back */ answer: exactly({ changed: count(), undo: eventRange() }),
  }),
  'POST /api/items/bulk/undo': endpoint({
    body: eventRange().noUnknown(),
    answer: exactly({ changed: count(), left: listOf(leftOut) }),
  }),
  'POST /api/items/approve': endpoint({
    body: object({ items: ids('Nothing is chosen.', 5000) }).noUnknown(),
    answer: exactly({ versions: texts(), left: listOf(leftOut) }),
  }),
  'POST /api/items/approve/undo': endpoint({
    body: object({ versions: ids('Nothing is chosen.', 20000) }).noUnknown(),
    answer: exactly({ changed: count() }),
  }),
  'POST /api/items/encoding': endpoint({
    body: object({ items: ids('Nothing is chosen.', 5000), encoding: encoding.required() }).noUnknown(),
    answer: exactly({ versions: count(), left: listOf(leftOut) }),
  }),
  'POST /api/items/bulk/preview': endpoint({ body: bulkChange, answer: exactly({ rows: listOf(bulkRow) }) }),
  'POST /api/items/seen': endpoint({}),
  'POST /api/items/archive': endpoint({
    body: object({ items: ids('Nothing is chosen.', 5000), archived: boolean().required() }).noUnknown(),
    answer: exactly({ changed: count() }),
  }),
  'POST /api/ribbons': endpoint({ body: ribbons }),
  'DELETE /api/ribbons': endpoint({ body: ribbons, answer: exactly({ cleared: count() }) }),
  'POST /api/copies': endpoint({
    body: object({
      keep: uuid().required(),
      others: array().of(uuid().required()).min(1, 'There is nothing to merge.').max(100).required(),
    }).noUnknown(),
    answer: exactly({ merged: count() }),
  }),
  'POST /api/copies/meant': endpoint({
    body: object({ items: array().of(uuid().required()).min(2).max(100).required() }).noUnknown(),
  }),
} as const;
