/** Shelves: made, ordered, put away, and what stands on them. */
import { array, boolean, lazy, number, object, string, type InferType } from 'yup';
import { searchKeys } from '../item/facets';
import { uuid } from '../uuid';
import { count, endpoint, exactly, id, listOf, made, texts } from './endpoint';
import { nameField, noteField } from './named';

/** A search that a shelf fills itself by: only what can be asked for in a search. */
const savedSearch = lazy((value: unknown) =>
  value == null
    ? object().nullable()
    : object(
        Object.fromEntries(
          Object.keys(value as object)
            .filter((key) => searchKeys.includes(key))
            .map((key) => [key, string().max(400)]),
        ),
      ).noUnknown(),
);

/** Where an item stood before it was moved: on which shelf, and before which other; null for the end. */
const place = {
  item: id(),
  shelfId: id(),
  before: uuid().nullable().defined(),
};
export type ItemPlace = InferType<ReturnType<typeof exactly<typeof place>>>;

const headingCount = exactly({ headings: texts(), items: count() });
export type HeadingCount = InferType<typeof headingCount>;

export const shelfEndpoints = {
  'POST /api/shelves': endpoint({
    body: object({
      name: nameField('A shelf needs a name.'),
      note: noteField(),
      query: savedSearch,
    }),
    answer: made,
  }),
  'PATCH /api/shelves/:id': endpoint({
    body: object({
      name: nameField('A shelf needs a name.'),
      note: noteField(),
    }).noUnknown(),
  }),
  'DELETE /api/shelves/:id': endpoint({}),
  'POST /api/shelves/:id/headings': endpoint({}),
  /** the headings on a shelf in its own order, each with how many items stand under it */
  'GET /api/shelves/:id/headings': endpoint({ answer: exactly({ headings: listOf(headingCount) }) }),
  'POST /api/shelves/:id/away': endpoint({ body: object({ away: boolean().required() }).noUnknown() }),
  'POST /api/shelves/order': endpoint({
    body: object({ shelves: array().of(uuid().required()).min(1).max(1000).required() }).noUnknown(),
  }),
  'POST /api/shelves/items': endpoint({
    body: object({
      items: array().of(uuid().required()).min(1, 'Nothing is chosen.').max(5000).required(),
      shelfId: uuid().required(),
      before: uuid().nullable().default(null),
      position: number(),
    }).noUnknown(),
    /** in the order in which they are put back */ answer: exactly({ places: listOf(exactly(place)) }),
  }),
  'POST /api/shelves/items/back': endpoint({
    body: object({ places: array().of(exactly(place)).min(1).max(5000).required() }).noUnknown(),
  }),
} as const;
