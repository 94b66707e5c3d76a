/** Items that are to be seen working in an editor at a station. */
import { array, object, string } from 'yup';
import { uuid } from '../uuid';
import { endpoint, exactly, id, listOf, words } from './endpoint';

export const sightingEndpoints = {
  /** pictures are asked for with these files on, each by itself */
  'POST /api/stations/:id/sightings': endpoint({
    body: object({
      paths: array()
        .of(string().required().max(1000))
        .min(1, 'Choose at least one file.')
        .max(200, 'At most 200 files at once.')
        .required(),
      frame: uuid().required('Choose a frame.'),
      by: string()
        .oneOf(['editor', 'person'] as const, 'A picture is made by the editor when asked, or exported by a person.')
        .required('Say who makes the picture.'),
    }).noUnknown(),
    answer: exactly({
      asked: listOf(exactly({ id: id(), path: words() })),
      left: listOf(exactly({ path: words(), title: words(), reason: words() })),
    }),
  }),
  /** what a person exported from the editor, as bytes */
  'POST /api/sightings/:id/result': endpoint({ answer: exactly({ state: words(), reason: words() }) }),
  /** one that was not answered */
  'DELETE /api/sightings/:id': endpoint({}),
};
