/** Searching the library. */
import { array, number, string, type InferType } from 'yup';
import { asIs, count, endpoint, exactly, flag, id, listOf, texts, words } from './endpoint';

/** The threads by which an item is told from others at a glance: pairs of colors. */
const selvedge = () => asIs<[string, string][] | null>();

/** A spine as the screens of the shelves have it. */
const spine = exactly({
  id: id(),
  versionId: id(),
  kind: words(),
  title: words(),
  shortTitle: words(),
  position: count(),
  headings: texts(),
  shelfId: id(),
  shelf: words(),
  number: count(),
  status: string()
    .oneOf(['draft', 'approved', 'retired'] as const)
    .required(),
  selvedge: selvedge(),
  mine: flag(),
  house: flag(),
  assumed: flag(),
  points: number().nullable().defined(),
  stations: count(),
  stale: flag(),
  /** new to whoever looks */ fresh: flag(),
  matching: count(),
  language: words(),
  cameras: texts(),
  supplier: words(),
  licence: string().nullable().defined(),
  tags: texts(),
  creator: words(),
  revision: count(),
  variants: count(),
  made: words(),
  changed: words(),
});
export type Spine = InferType<typeof spine>;

const facet = exactly({ key: words(), value: words(), n: count(), more: flag() });
export type FacetCount = InferType<typeof facet>;

const itemFound = exactly({
  id: id(),
  title: words(),
  kind: words(),
  headings: texts(),
  shelf: words(),
  selvedge: selvedge(),
});
export type ItemFound = InferType<typeof itemFound>;

const event = exactly({
  id: count(),
  at: words(),
  actor: words(),
  subject: words(),
  subject_id: words(),
  action: words(),
});

export const searchEndpoints = {
  'GET /api/search': endpoint({ answer: exactly({ items: listOf(itemFound) }) }),
  'GET /api/search/spines': endpoint({
    answer: exactly({
      flat: flag(),
      spines: listOf(spine),
      counts: exactly({ n: count(), more: flag(), facets: listOf(facet) }),
    }),
  }),
  'GET /api/items': endpoint({ answer: exactly({ rows: listOf(spine) }) }),
  'GET /api/events': endpoint({ answer: exactly({ events: array().of(event).required(), moment: words() }) }),
} as const;
