/** Which editors' own lists are meant, wherever something is asked of several. */
import { array, object, string, type InferType } from 'yup';
import { uuid } from '../uuid';

export const listPlace = object({
  station: uuid().required(),
  editor: string().required().max(40),
  version: string().required().max(12),
})
  .noUnknown()
  .required();
/** One editor at one station. */
export type ListPlace = InferType<typeof listPlace>;

export const MOST_PLACES = 500;
export const listPlaces = () =>
  array()
    .of(listPlace)
    .min(1, 'Choose at least one list.')
    .max(MOST_PLACES, `At most ${MOST_PLACES} lists at once.`)
    .required();
