/** A look that gives one camera the color character of another, from two frames of one scene or chart. */
import { boolean, object } from 'yup';
import { pointsField, titleField } from '../conversion/recipe';
import { uuid } from '../uuid';
import { endpoint, id } from './endpoint';

export const newMatch = object({
  /** the frame of the camera that is changed */ from: uuid().required('Choose the frame that is changed.'),
  to: uuid().required('Choose the frame that it is to look like.'),
  title: titleField().required('Give the look a title.'),
  shelf: uuid().required('Choose a shelf.'),
  size: pointsField().default(33),
  /** for the camera of the frame that is changed alone */ limit: boolean().default(true),
}).noUnknown();

export const cameraMatchEndpoints = {
  'POST /api/camera-match': endpoint({
    body: newMatch,
    answer: object({ itemId: id(), versionId: id() }).noUnknown().required(),
  }),
};
