/** Favorites: editors' own short lists at stations, and our ribbons. */
import { boolean, object, string } from 'yup';
import { listPlace, listPlaces } from './editor-lists';
import { count, endpoint, exactly, id } from './endpoint';

export const favoritesEndpoints = {
  /** a rollout that writes what ribbons ask for into these editors' lists */
  'POST /api/favorites/plan': endpoint({
    body: object({
      places: listPlaces(),
      /** what people there took off is asked for again */ putBack: boolean().default(false),
    }).noUnknown(),
    answer: exactly({ rollout: id() }),
  }),
  /** ribbons for what people there chose for themselves */
  'POST /api/favorites/ribbons': endpoint({
    body: listPlace.shape({
      whose: string()
        .oneOf(['mine', 'house'] as const)
        .required(),
    }),
    answer: exactly({ set: count() }),
  }),
} as const;
