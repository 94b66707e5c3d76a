/** Presets written for editors: in another language, or as one that calls a look and touches nothing else. */
import { number, object, string } from 'yup';
import { endpoint, exactly, figure, flag, id, listOf, texts, words } from './endpoint';

const editor = () => string().required('Choose an editor.').max(60);
const carried = exactly({ setting: words(), title: words() });

const writing = object({ to: editor() }).noUnknown();
const calling = object({
  to: editor(),
  title: string().trim().required('A title is needed.').max(200, 'A title has at most 200 signs.'),
  strength: number()
    .typeError('The strength is a number of percent.')
    .min(0, 'The strength is at least 0 %.')
    .max(400, 'The strength is at most 400 %.')
    .default(100),
}).noUnknown();

const made = exactly({ itemId: id(), versionId: id() });

export const presetFormEndpoints = {
  /** editors whose presets can be written */
  'GET /api/preset-languages': endpoint({
    answer: exactly({ languages: listOf(exactly({ id: words(), title: words(), calls: flag() })) }),
  }),
  /** what would become of each setting in the language that `to` names */
  'GET /api/versions/:id/preset': endpoint({
    answer: exactly({
      editor: words(),
      carried: listOf(carried),
      approximated: listOf(
        exactly({
          setting: words(),
          title: words(),
          reason: words(),
          figure: figure().nullable(),
          meanDeltaE: figure().nullable(),
        }),
      ),
      left: listOf(exactly({ setting: words(), title: words(), reason: words() })),
      rendering: exactly({ maxDeltaE: figure(), p95DeltaE: figure(), meanDeltaE: figure() }),
      /** names that the preset refers to, which stay as they are */ refersTo: texts(),
    }),
  }),
  'POST /api/versions/:id/preset': endpoint({ body: writing, answer: made }),
  'POST /api/versions/:id/companion': endpoint({ body: calling, answer: made }),
} as const;
