/** What presets refer to by name: looks and camera profiles, and which items are meant. */
import { object, string } from 'yup';
import { uuid } from '../uuid';
import { count, endpoint, exactly, flag, id, listOf, texts, words } from './endpoint';

const kind = () =>
  string()
    .oneOf(['look', 'camera-profile'] as const)
    .required();

/** Which item a name means, as a person says it. */
const binding = object({ kind: kind(), itemId: uuid().required('Choose the item that is meant.') }).noUnknown();

const reference = exactly({
  kind: kind(),
  name: words(),
  /** bound to an item, to one that is archived, to none that is held, or to none while several are called so */
  state: string()
    .oneOf(['bound', 'archived', 'missing', 'ambiguous'] as const)
    .required(),
  item: exactly({ id: id(), title: words() }).nullable(),
  /** it was made from this preset, so that the effect acts twice */ twice: flag(),
  /** the newest version of that item */ versionId: uuid().nullable().defined(),
  meant: listOf(exactly({ id: id(), title: words(), supplier: words() })),
});

const referring = exactly({ itemId: id(), title: words(), name: words(), editor: words() });

export const referenceEndpoints = {
  /** presets that call an item by a name which the editors know it by */
  'GET /api/items/:id/referring': endpoint({ answer: exactly({ presets: listOf(referring) }) }),
  /** writes these presets anew, with the name that the item has now */
  'POST /api/items/:id/referring': endpoint({ answer: exactly({ written: count(), left: texts() }) }),
  'GET /api/versions/:id/references': endpoint({ answer: exactly({ references: listOf(reference) }) }),
  'POST /api/versions/:id/references': endpoint({ body: binding }),
} as const;
